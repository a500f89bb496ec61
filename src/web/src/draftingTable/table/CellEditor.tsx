import { Popover, TextInput } from '@mantine/core';
import { useEffect, useEffectEvent, useId, useLayoutEffect, useRef, useState, type KeyboardEvent, type RefObject } from 'react';
import type { Answer, Cell, DecisionTable, Output, State } from '../../api/generated';
import { Chip } from '../rule/Chip';
import { ComparandChip } from '../rule/ComparandChip';
import { takeFocus } from '../rule/focus';
import { offerOf } from '../rule/offers';
import rule from '../rule/OpenRule.module.css';
import { TestBlanks } from '../rule/TestBlanks';
import { useSentenceWalk, WalkContext } from '../rule/walk';
import { useWriting } from '../rule/writing';
import { cellChoices, completionsOf, lastItem } from './cellChoices';
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
  /** What a text says in this cell; null where it cannot be read. */
  onHear: (text: string) => Promise<Cell | Answer | null>;
  onCell: (cell: Cell | Answer) => void;
  /** Closes the editor and goes on to the cell so far away, which begins with what was typed meanwhile. */
  onClose: (by?: Steps, typed?: string) => void;
}

interface Steps {
  rows?: number;
  columns?: number;
}

/** A cell: looked at, typed into, or written by chips. */
export function CellEditor(props: Props) {
  const { row, column, text, isCurrent, editing, onFocus, onSelect, onEdit, onKeyDown } = props;
  const leave = useRef<() => void>(undefined);
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
    <Popover opened onChange={(next) => !next && leave.current?.()} position="bottom-start" withinPortal trapFocus>
      <Popover.Target>{cell}</Popover.Target>
      <Popover.Dropdown className={classes.editor}>
        <Editing {...props} leave={leave} />
      </Popover.Dropdown>
    </Popover>
  );
}

/** What ends an entry, as it stands in what was typed ahead. */
const entered: Record<string, string | undefined> = { Enter: '\n', Tab: '\t' };

/** What was typed ahead for one cell, where it goes on from there, and what is left for the next ones. */
function firstEntry(typed: string): { text: string; by?: Steps; rest: string } {
  const end = typed.search(/[\n\t]/);
  return end < 0
    ? { text: typed, rest: '' }
    : { text: typed.slice(0, end), by: typed[end] === '\n' ? { rows: 1 } : { columns: 1 }, rest: typed.slice(end + 1) };
}

function Editing({
  table,
  row,
  column,
  text,
  editing,
  isTyped,
  onHear,
  onCell,
  onClose,
  leave,
}: Props & { leave: RefObject<(() => void) | undefined> }) {
  const writing = useWriting();
  const [begun] = useState(() => firstEntry(editing ?? ''));
  const [typed, setTyped] = useState(isTyped ? begun.text : text === '—' ? '' : text);
  const [first] = useState(isTyped ? undefined : typed);
  const [mistake, setMistake] = useState(false);
  const [marked, setMarked] = useState(-1);
  /** What has been heard of the text so far. */
  const heard = useRef<{ text: string; cell: Cell | Answer | null }>(undefined);
  /** Where it goes on once it is known whether the text can be read, and what was typed meanwhile. */
  const ahead = useRef<{ said: string; by?: Steps; typed: string }>(undefined);
  const { choices, hint } = cellChoices(writing, table, column);
  const completions = completionsOf(choices, typed);
  const offered = typed === first || (mistake && completions.length === 0) ? choices : completions;
  const sentence = useRef<HTMLDivElement>(null);
  const walk = useSentenceWalk(sentence, false, () => undefined);
  const id = useId();

  function hear(next: string) {
    void onHear(next).then(
      (cell) => {
        heard.current = { text: next, cell };
        if (ahead.current?.said === next) {
          settle(next, cell);
        } else if (cell) {
          setMistake(false);
        }
      },
      () => undefined,
    );
  }

  // What was typed for this cell and those after it, before it was known whether the one before could be left.
  useLayoutEffect(() => {
    if (begun.by) {
      ahead.current = { said: begun.text, by: begun.by, typed: begun.rest };
    }
  }, [begun]);
  const listen = useEffectEvent(() => hear(typed));
  useEffect(() => listen(), []);

  function change(next: string) {
    setTyped(next);
    setMarked(-1);
    hear(next);
  }

  function settle(said: string, cell: Cell | Answer | null) {
    const waiting = ahead.current;
    ahead.current = undefined;
    if (cell) {
      onCell(cell);
      onClose(waiting?.by, waiting?.typed);
    } else {
      setTyped(said + (waiting?.typed ?? '').replaceAll(/[\n\t]/g, ' '));
      setMistake(true);
    }
  }

  /** Takes what is typed and goes on; what cannot be read stays to be mended. */
  function take(said: string, by?: Steps) {
    if (said === first) {
      onClose(by);
      return;
    }
    ahead.current = { said, by, typed: '' };
    if (heard.current?.text === said) {
      settle(said, heard.current.cell);
    } else {
      hear(said);
    }
  }

  // Who presses elsewhere has said what is typed.
  useLayoutEffect(() => {
    leave.current = () => take(typed);
  });

  const withChoice = (choice: string) => lastItem(typed === first ? '' : typed).before + choice;

  function key(event: KeyboardEvent<HTMLInputElement>) {
    if (ahead.current) {
      // It is not known yet whether the cell can be left: what is typed waits for that.
      event.preventDefault();
      const { typed: waiting } = ahead.current;
      const letter = entered[event.key] ?? (event.key.length === 1 ? event.key : '');
      ahead.current.typed = event.key === 'Backspace' ? waiting.slice(0, -1) : waiting + letter;
      return;
    }
    const by =
      event.key === 'Enter'
        ? { rows: event.shiftKey ? -1 : 1 }
        : event.key === 'Tab'
          ? { columns: event.shiftKey ? -1 : 1 }
          : undefined;
    if (by) {
      event.preventDefault();
      take(marked >= 0 ? withChoice(offered[marked]!) : typed, by);
    } else if (event.key === 'Escape') {
      event.stopPropagation();
      onClose();
    } else if ((event.key === 'ArrowDown' || event.key === 'ArrowUp') && offered.length > 0) {
      event.preventDefault();
      setMarked((marked + (event.key === 'ArrowDown' ? 1 : -1) + offered.length) % offered.length);
    }
  }

  return (
    <>
      <TextInput
        ref={takeFocus}
        data-autofocus
        role="combobox"
        aria-expanded={offered.length > 0}
        aria-controls={`${id}-choices`}
        aria-activedescendant={marked >= 0 ? `${id}-${marked}` : undefined}
        aria-label="The cell as text"
        value={typed}
        error={mistake && `“${typed}” cannot be read here. ${hint}`}
        onFocus={(event) => !isTyped && event.currentTarget.select()}
        onChange={(event) => change(event.currentTarget.value)}
        onKeyDown={key}
      />
      {offered.length > 0 && (
        <div id={`${id}-choices`} role="listbox" aria-label="Choices" className={classes.choices}>
          {offered.map((choice, i) => (
            <button
              key={choice}
              id={`${id}-${i}`}
              type="button"
              role="option"
              tabIndex={-1}
              className={classes.choice}
              aria-selected={i === marked}
              onClick={() => take(withChoice(choice))}
            >
              {choice}
            </button>
          ))}
        </div>
      )}
      <WalkContext value={walk}>
        <div className={rule.line} ref={sentence}>
          <span className={rule.line} data-place="cell">
            {column < table.drivers.length ? (
              <DriverBlanks table={table} row={row} column={column} onCell={onCell} />
            ) : (
              <AnswerBlanks
                output={table.outputs[column - table.drivers.length]!}
                answer={table.rows[row]?.then[column - table.drivers.length]}
                onCell={onCell}
              />
            )}
          </span>
        </div>
      </WalkContext>
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
