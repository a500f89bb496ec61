import { Popover, TextInput } from '@mantine/core';
import { useState, type KeyboardEvent } from 'react';
import type { Answer, Cell, DecisionTable, Output, State } from '../../api/generated';
import { Chip } from '../rule/Chip';
import { ComparandChip } from '../rule/ComparandChip';
import { takeFocus } from '../rule/focus';
import { offerOf } from '../rule/offers';
import rule from '../rule/OpenRule.module.css';
import { TestBlanks } from '../rule/TestBlanks';
import { useWriting } from '../rule/writing';
import { allStates, stateWords } from './stateWords';
import classes from './TableCells.module.css';

interface Props {
  table: DecisionTable;
  row: number;
  column: number;
  text: string;
  isCurrent: boolean;
  /** What has been typed to begin with; undefined while the cell is only looked at. */
  editing: string | undefined;
  isTyped: boolean;
  onFocus: () => void;
  onSelect: (extend: boolean) => void;
  onEdit: () => void;
  onKeyDown: (event: KeyboardEvent) => void;
  onType: (text: string) => void;
  onCell: (cell: Cell | Answer) => void;
  /** Closes the editor and goes on to the cell so far away. */
  onClose: (by?: { rows?: number; columns?: number }) => void;
}

/** A cell: looked at, typed into, or written by chips. */
export function CellEditor(props: Props) {
  const { row, column, text, isCurrent, editing, onFocus, onSelect, onEdit, onKeyDown, onClose } = props;
  const cell = (
    <button
      type="button"
      className={classes.cell}
      data-cell={`${row}-${column}`}
      tabIndex={isCurrent ? 0 : -1}
      onFocus={onFocus}
      onKeyDown={onKeyDown}
      onClick={(event) => (event.shiftKey ? onSelect(true) : onEdit())}
    >
      {text}
    </button>
  );
  return editing === undefined ? (
    cell
  ) : (
    <Popover opened onChange={(next) => !next && onClose()} position="bottom-start" withinPortal trapFocus>
      <Popover.Target>{cell}</Popover.Target>
      <Popover.Dropdown className={classes.editor}>
        <Editing {...props} />
      </Popover.Dropdown>
    </Popover>
  );
}

function Editing({ table, row, column, text, editing, isTyped, onType, onCell, onClose }: Props) {
  const [typed, setTyped] = useState(isTyped ? editing! : text === '—' ? '' : text);
  const before = isTyped ? undefined : typed;
  const [first] = useState(before);

  function close(by?: { rows?: number; columns?: number }) {
    if (typed !== first) {
      onType(typed);
    }
    onClose(by);
  }

  return (
    <>
      <TextInput
        ref={takeFocus}
        data-autofocus
        aria-label="The cell as text"
        value={typed}
        onFocus={(event) => !isTyped && event.currentTarget.select()}
        onChange={(event) => setTyped(event.currentTarget.value)}
        onKeyDown={(event) => {
          if (event.key === 'Enter') {
            event.preventDefault();
            close({ rows: event.shiftKey ? -1 : 1 });
          } else if (event.key === 'Tab') {
            event.preventDefault();
            close({ columns: event.shiftKey ? -1 : 1 });
          } else if (event.key === 'Escape') {
            event.stopPropagation();
            onClose();
          }
        }}
      />
      <div className={rule.line}>
        {column < table.drivers.length ? (
          <DriverBlanks table={table} row={row} column={column} onCell={onCell} />
        ) : (
          <AnswerBlanks
            output={table.outputs[column - table.drivers.length]!}
            answer={table.rows[row]?.then[column - table.drivers.length]}
            onCell={onCell}
          />
        )}
      </div>
    </>
  );
}

function DriverBlanks({ table, row, column, onCell }: Pick<Props, 'table' | 'row' | 'column' | 'onCell'>) {
  const writing = useWriting();
  const offer = offerOf(writing, table.drivers[column]!);
  const cell = table.rows[row]?.if[column];
  const wrong = (part: string) =>
    writing.problems.some(({ place }) => place.startsWith(`/table/rows/${row}/if/${column}/${part}`));
  return (
    offer && (
      <>
        <Chip
          blank="cell"
          label={cell?.test ? 'asks' : 'anything'}
          options={() => [
            { value: 'anything', label: 'anything' },
            { value: 'asks', label: 'asks' },
          ]}
          onPick={(picked) =>
            onCell(picked === 'asks' ? { test: offer.tests[0]!.test, comparands: [] } : { test: null, comparands: [] })
          }
        />
        {cell?.test && (
          <TestBlanks
            offer={offer}
            test={cell.test}
            comparands={cell.comparands ?? []}
            isWrong={wrong}
            onChange={(next) => onCell(next)}
          />
        )}
      </>
    )
  );
}

function AnswerBlanks({
  output,
  answer,
  onCell,
}: {
  output: Output;
  answer: Answer | undefined;
  onCell: (cell: Answer) => void;
}) {
  const writing = useWriting();
  switch (output.kind) {
    case 'state': {
      const states = answer?.kind === 'states' ? answer.states : [];
      const toggle = (value: string) => {
        const state = value as State;
        const next = states.includes(state) ? states.filter((one) => one !== state) : [...states, state];
        onCell(next.length === 0 ? { kind: 'none' } : { kind: 'states', states: next });
      };
      return (
        <Chip
          blank="states"
          label={states.map((state) => stateWords[state]).join(', ') || 'nothing'}
          options={() => allStates.map((state) => ({ value: state, label: stateWords[state] }))}
          chosen={states}
          onToggle={toggle}
          onPick={(state) => onCell({ kind: 'states', states: [state as State] })}
        />
      );
    }
    case 'value': {
      const offer = offerOf(writing, { kind: 'field', field: output.field });
      return (
        offer && (
          <ComparandChip
            offer={offer}
            comparand={answer?.kind === 'value' ? answer.value : undefined}
            onPick={(value) => onCell({ kind: 'value', value })}
          />
        )
      );
    }
    case 'choices': {
      const field = writing.type.fields.find(({ key }) => key === output.field);
      const all = field && 'options' in field.type ? field.type.options : [];
      const left = answer?.kind === 'choices' ? answer.options : [];
      const toggle = (key: string) =>
        onCell({ kind: 'choices', options: left.includes(key) ? left.filter((one) => one !== key) : [...left, key] });
      return (
        <Chip
          blank="choices"
          label={left.length === 0 ? 'nothing' : `${left.length} of ${all.length}`}
          options={() => all.map(({ key, label }) => ({ value: key, label }))}
          chosen={left}
          onToggle={toggle}
          onPick={toggle}
        />
      );
    }
    case 'message':
      return null;
  }
}
