import { Menu, UnstyledButton } from '@mantine/core';
import { useLayoutEffect, useRef, useState, type ClipboardEvent, type KeyboardEvent } from 'react';
import type { Answer, Cell, DecisionTable } from '../../api/generated';
import type { TableReach } from '../../engine/answers';
import lines from '../../sheet/lines.module.css';
import { moved, without } from '../rule/compose';
import { Problems } from '../rule/Problems';
import { useSurroundings } from '../rule/draftContext';
import { useWriting } from '../rule/writing';
import { cellText, columnsOf, emptyRow, headText, withCells } from './cells';
import { withMovedColumn, withoutColumn } from './columns';
import classes from './TableCells.module.css';
import { CellEditor } from './CellEditor';

interface Props {
  table: DecisionTable;
  rowInForce: number;
  reach: TableReach;
  onChange: (table: DecisionTable) => void;
}

interface At {
  row: number;
  column: number;
}

/** The table itself: cells by mouse and keyboard, ranges, copy and paste from and to a spreadsheet. */
export function TableCells({ table, rowInForce, reach, onChange }: Props) {
  const writing = useWriting();
  const { hearCells } = useSurroundings();
  const [at, setAt] = useState<At>({ row: 0, column: 0 });
  const [from, setFrom] = useState<At>();
  const [editing, setEditing] = useState<{ at: At; typed?: string }>();
  const [mistake, setMistake] = useState('');
  const dragged = useRef<number>(undefined);
  const body = useRef<HTMLTableSectionElement>(null);
  const columns = columnsOf(table);
  const range = rangeOf(from ?? at, at);

  /** The cell that was last gone to. The keyboard is there with the drawing: no key typed on goes astray. */
  const [goal, focus] = useState<At>();
  useLayoutEffect(() => {
    if (goal) {
      body.current?.querySelector<HTMLElement>(`[data-cell="${goal.row}-${goal.column}"]`)?.focus();
    }
  }, [goal]);
  /** With what is written already, also where it has not been drawn yet. */
  const latest = useRef(table);
  useLayoutEffect(() => {
    latest.current = table;
  }, [table]);

  function go(next: At, extend = false) {
    const to = {
      row: Math.max(0, Math.min(table.rows.length - 1, next.row)),
      column: Math.max(0, Math.min(columns - 1, next.column)),
    };
    setFrom(extend ? (from ?? at) : undefined);
    setAt(to);
    focus(to);
    return to;
  }

  /** Takes over what was typed; cells that cannot be read are said and left as they were. */
  async function write(cells: (At & { text: string })[]) {
    setMistake('');
    const read = await hearCells(
      table,
      cells.map(({ column, text }) => ({ column, text })),
    );
    const unread = cells.filter((_, i) => read[i] === null);
    if (unread.length > 0) {
      setMistake(
        `${unread.map(({ text }) => `“${text}”`).join(', ')} cannot be read in ${unread.length === 1 ? 'that column' : 'those columns'}. ${unread.length === 1 ? 'The cell is' : 'These cells are'} left as before.`,
      );
    }
    latest.current = withCells(
      latest.current,
      cells.flatMap(({ row, column }, i) => (read[i] ? [{ row, column, cell: read[i] as Cell | Answer }] : [])),
    );
    onChange(latest.current);
  }

  function key(event: KeyboardEvent) {
    const step = { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1] }[event.key];
    if (event.altKey && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) {
      event.preventDefault();
      moveRow(at.row, event.key === 'ArrowUp' ? -1 : 1);
    } else if (step) {
      event.preventDefault();
      go({ row: at.row + step[0]!, column: at.column + step[1]! }, event.shiftKey);
    } else if (event.key === 'Enter' || event.key === 'F2') {
      event.preventDefault();
      setEditing({ at });
    } else if (event.key === 'Delete' || event.key === 'Backspace') {
      event.preventDefault();
      void write(cellsIn(range).map((cell) => ({ ...cell, text: '' })));
    } else if (event.key === 'Escape' && from) {
      event.stopPropagation();
      setFrom(undefined);
    } else if (event.key.length === 1 && !event.ctrlKey && !event.metaKey && !event.altKey) {
      event.preventDefault();
      setEditing({ at, typed: event.key });
    }
  }

  function moveRow(row: number, by: number) {
    const to = row + by;
    if (to >= 0 && to < table.rows.length) {
      onChange({ ...table, rows: moved(table.rows, row, to) });
      setAt({ row: to, column: at.column });
      focus({ row: to, column: at.column });
    }
  }

  function copy(event: ClipboardEvent) {
    event.preventDefault();
    const text = rows(range).map((row) =>
      cellsOfRow(range, row)
        .map(({ column }) => cellText(writing, table, table.rows[row]!, column).replace(/^—$/, ''))
        .join('\t'),
    );
    event.clipboardData.setData('text/plain', text.join('\n'));
  }

  function paste(event: ClipboardEvent) {
    event.preventDefault();
    const pasted = event.clipboardData
      .getData('text/plain')
      .replace(/\r?\n$/, '')
      .split(/\r?\n/);
    void write(
      pasted.flatMap((line, r) =>
        line
          .split('\t')
          .map((text, c) => ({ row: range.top + r, column: range.left + c, text: text.trim() }))
          .filter(({ column }) => column < columns),
      ),
    );
  }

  return (
    <div className={classes.scroll}>
      <table className={classes.table} role="grid" aria-label="Decision table" onCopy={copy} onPaste={paste}>
        <thead>
          <tr>
            <td />
            {Array.from({ length: columns }, (_, column) => (
              <th
                key={column}
                scope="col"
                data-output={column >= table.drivers.length || undefined}
                data-first={column === table.drivers.length || undefined}
              >
                <ColumnHead
                  label={headText(writing, table, column)}
                  onMove={(by) => onChange(withMovedColumn(table, column, by))}
                  onRemove={() => onChange(withoutColumn(table, column))}
                />
              </th>
            ))}
          </tr>
        </thead>
        <tbody ref={body}>
          {table.rows.map((row, r) => {
            const place = `/table/rows/${r}`;
            const isWrong = writing.problems.some((problem) => problem.place === place || problem.place.startsWith(`${place}/`));
            return (
              <tr
                key={r}
                data-in-force={r === rowInForce || undefined}
                data-wrong={isWrong || undefined}
                data-unreached={reach.unreached.includes(r) || undefined}
                onDragOver={(event) => dragged.current !== undefined && event.preventDefault()}
                onDrop={() => {
                  if (dragged.current !== undefined) {
                    onChange({ ...table, rows: moved(table.rows, dragged.current, r) });
                    dragged.current = undefined;
                  }
                }}
              >
                <th scope="row">
                  <RowHead
                    number={r + 1}
                    isInForce={r === rowInForce}
                    mark={
                      reach.unreached.includes(r)
                        ? 'never reached'
                        : reach.overlaps.some(({ lower }) => lower === r)
                          ? `overlaps row ${reach.overlaps.find(({ lower }) => lower === r)!.upper + 1}`
                          : undefined
                    }
                    onDrag={() => (dragged.current = r)}
                    onMove={(by) => moveRow(r, by)}
                    onInsert={() =>
                      onChange({ ...table, rows: [...table.rows.slice(0, r + 1), emptyRow(table), ...table.rows.slice(r + 1)] })
                    }
                    onDuplicate={() =>
                      onChange({ ...table, rows: [...table.rows.slice(0, r + 1), row, ...table.rows.slice(r + 1)] })
                    }
                    onRemove={() => onChange({ ...table, rows: without(table.rows, r) })}
                  />
                </th>
                {Array.from({ length: columns }, (_, column) => (
                  <td
                    key={column}
                    role="gridcell"
                    data-output={column >= table.drivers.length || undefined}
                    data-first={column === table.drivers.length || undefined}
                    aria-selected={isIn(range, { row: r, column })}
                  >
                    <CellEditor
                      table={table}
                      row={r}
                      column={column}
                      text={cellText(writing, table, row, column)}
                      isCurrent={at.row === r && at.column === column}
                      editing={editing?.at.row === r && editing.at.column === column ? (editing.typed ?? '') : undefined}
                      isTyped={editing?.typed !== undefined}
                      onFocus={() => setAt({ row: r, column })}
                      onSelect={(extend) => !editing && go({ row: r, column }, extend)}
                      onEdit={() => {
                        // One that cannot be read stays open until it is mended.
                        if (editing) {
                          return;
                        }
                        setAt({ row: r, column });
                        setFrom(undefined);
                        setEditing({ at: { row: r, column } });
                      }}
                      onKeyDown={key}
                      onHear={async (text) => (await hearCells(table, [{ column, text }]))[0] ?? null}
                      onCell={(cell) => {
                        latest.current = withCells(latest.current, [{ row: r, column, cell }]);
                        onChange(latest.current);
                      }}
                      onClose={(by, typed) => {
                        const next = go({ row: r + (by?.rows ?? 0), column: column + (by?.columns ?? 0) });
                        // To go on without a word says nothing of the cell.
                        const said = typed?.replace(/^[\n\t]+/, '');
                        setEditing(said ? { at: next, typed: said } : undefined);
                      }}
                    />
                  </td>
                ))}
              </tr>
            );
          })}
        </tbody>
      </table>
      {mistake && (
        <div className={lines.wrong} role="alert">
          {mistake}
        </div>
      )}
      {table.rows.map((_, r) => (
        <Problems key={r} problems={writing.problems} place={`/table/rows/${r}`} label={`Row ${r + 1}:`} />
      ))}
    </div>
  );
}

function ColumnHead({ label, onMove, onRemove }: { label: string; onMove: (by: number) => void; onRemove: () => void }) {
  return (
    <Menu position="bottom-start">
      <Menu.Target>
        <UnstyledButton className={classes.head}>{label}</UnstyledButton>
      </Menu.Target>
      <Menu.Dropdown>
        <Menu.Item onClick={() => onMove(-1)}>Move to the left</Menu.Item>
        <Menu.Item onClick={() => onMove(1)}>Move to the right</Menu.Item>
        <Menu.Item onClick={onRemove}>Delete the column</Menu.Item>
      </Menu.Dropdown>
    </Menu>
  );
}

interface RowHeadProps {
  number: number;
  isInForce: boolean;
  /** What is worth knowing of the row beside the others. */
  mark?: string;
  onDrag: () => void;
  onMove: (by: number) => void;
  onInsert: () => void;
  onDuplicate: () => void;
  onRemove: () => void;
}

function RowHead({ number, isInForce, mark, onDrag, onMove, onInsert, onDuplicate, onRemove }: RowHeadProps) {
  return (
    <Menu position="bottom-start">
      <Menu.Target>
        <UnstyledButton
          className={classes.rowHead}
          draggable
          onDragStart={onDrag}
          aria-label={`Row ${number}${isInForce ? ', in force' : ''}${mark ? `, ${mark}` : ''}`}
          title="Drag to re-order"
        >
          {number}
          {isInForce && ' ✓'}
          {mark && <span className={classes.mark}>{mark}</span>}
        </UnstyledButton>
      </Menu.Target>
      <Menu.Dropdown>
        <Menu.Item onClick={() => onMove(-1)}>Move up</Menu.Item>
        <Menu.Item onClick={() => onMove(1)}>Move down</Menu.Item>
        <Menu.Item onClick={onInsert}>Insert a row below</Menu.Item>
        <Menu.Item onClick={onDuplicate}>Duplicate</Menu.Item>
        <Menu.Item onClick={onRemove}>Delete the row</Menu.Item>
      </Menu.Dropdown>
    </Menu>
  );
}

interface Range {
  top: number;
  bottom: number;
  left: number;
  right: number;
}

const rangeOf = (one: At, other: At): Range => ({
  top: Math.min(one.row, other.row),
  bottom: Math.max(one.row, other.row),
  left: Math.min(one.column, other.column),
  right: Math.max(one.column, other.column),
});

const isIn = ({ top, bottom, left, right }: Range, { row, column }: At) =>
  row >= top && row <= bottom && column >= left && column <= right;

const rows = ({ top, bottom }: Range) => Array.from({ length: bottom - top + 1 }, (_, i) => top + i);

const cellsOfRow = ({ left, right }: Range, row: number): At[] =>
  Array.from({ length: right - left + 1 }, (_, i) => ({ row, column: left + i }));

const cellsIn = (range: Range): At[] => rows(range).flatMap((row) => cellsOfRow(range, row));
