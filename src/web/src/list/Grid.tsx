import { Checkbox, UnstyledButton } from '@mantine/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useRef, useState, type KeyboardEvent } from 'react';
import { Link } from 'react-router-dom';
import type { ColumnView, ListRow, PersonEntry, RecordType } from '../api/generated';
import type { Values } from '../engine/answers';
import { useNamed } from '../records/useNamed';
import { Cell, isOpen } from './Cell';
import classes from './Grid.module.css';
import type { Column, Layout } from './layout';
import { OpenCell } from './OpenCell';
import { valueOf } from './typedText';
import type { useEditing } from './useEditing';

interface Props {
  type: RecordType;
  known: ColumnView[];
  people: PersonEntry[];
  layout: Layout;
  onLayout: (change: Partial<Layout>) => void;
  rows: ListRow[];
  onMore?: () => void;
  editing: ReturnType<typeof useEditing>;
  ticked: ReadonlySet<number>;
  onTick: (ids: ReadonlySet<number>) => void;
  /** Text was pasted: changes for each row that it covers. */
  onPaste: (changes: { row: ListRow; changes: Values }[]) => void;
}

interface At {
  row: number;
  column: number;
}

const rowHeight = 33;
const first: At = { row: 0, column: 1 };

/** The list as a sheet of cells: walked through by arrow keys, typed into in place, copied from and pasted into in blocks. */
export function Grid({ type, known, people, layout, onLayout, rows, onMore, editing, ticked, onTick, onPaste }: Props) {
  'use no memo';
  const scroller = useRef<HTMLDivElement>(null);
  const [at, setAt] = useState<At>(first);
  const [from, setFrom] = useState<At>(first);
  const [isTyping, setTyping] = useState(false);
  const written = useNamed();
  const { columns } = layout;
  const template = `34px ${columns.map(({ width }) => `${width}px`).join(' ')}`;
  const fieldAt = (column: number) => type.fields.find(({ key }) => key === columns[column]?.key);
  // eslint-disable-next-line react-hooks/incompatible-library -- nothing here is memoised by what it answers
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => rowHeight,
    overscan: 12,
    getItemKey: (index) => rows[index]?.id ?? index,
  });
  const items = virtual.getVirtualItems();
  const last = items.at(-1)?.index ?? 0;
  useEffect(() => {
    if (onMore && rows.length > 0 && last >= rows.length - 20) {
      onMore();
    }
  }, [last, rows.length, onMore]);

  function go(to: At, isExtending = false) {
    const next = {
      row: Math.min(Math.max(to.row, 0), rows.length - 1),
      column: Math.min(Math.max(to.column, 0), columns.length - 1),
    };
    const left = rows[at.row];
    if (left && next.row !== at.row && editing.rows.has(left.id)) {
      void editing.leave(left.id);
    }
    setAt(next);
    if (!isExtending) {
      setFrom(next);
    }
    virtual.scrollToIndex(next.row, { align: 'auto' });
  }

  function stopTyping(to: At) {
    (document.activeElement as HTMLElement | null)?.blur();
    setTyping(false);
    go(to);
    scroller.current?.focus({ preventScroll: true });
  }

  function type_(at: At, typed?: string) {
    const row = rows[at.row];
    const field = fieldAt(at.column);
    if (!row || !field || !(editing.rows.has(row.id) || isOpen(row.cells.find((one) => one.field === field.key)))) {
      return;
    }
    void editing.open(row.id, typed === undefined ? {} : { [field.key]: valueOf(field, typed, people) });
    setTyping(true);
  }

  function onKeyDown(event: KeyboardEvent) {
    const { key, shiftKey } = event;
    const move = { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1] }[key];
    const row = rows[at.row];
    if (isTyping) {
      if (key === 'Escape') {
        event.preventDefault();
        stopTyping(at);
      } else if (key === 'Enter' && !event.defaultPrevented && !(event.target instanceof HTMLTextAreaElement && shiftKey)) {
        event.preventDefault();
        stopTyping({ row: at.row + 1, column: at.column });
      } else if (key === 'Tab') {
        event.preventDefault();
        stopTyping({ row: at.row, column: at.column + (shiftKey ? -1 : 1) });
      }
      return;
    }
    if (move) {
      event.preventDefault();
      go({ row: at.row + (move[0] ?? 0), column: at.column + (move[1] ?? 0) }, shiftKey);
    } else if (key === 'PageDown' || key === 'PageUp') {
      event.preventDefault();
      go({ row: at.row + (key === 'PageDown' ? 15 : -15), column: at.column }, shiftKey);
    } else if (key === 'Home' || key === 'End') {
      event.preventDefault();
      go({ row: at.row, column: key === 'Home' ? 0 : columns.length - 1 });
    } else if (key === 'Enter' || key === 'F2') {
      event.preventDefault();
      type_(at);
    } else if (key === 'Escape' && row && editing.rows.has(row.id)) {
      editing.takeBack(row.id);
    } else if (key === ' ' && row) {
      event.preventDefault();
      tick(row.id);
    } else if ((key === 'Delete' || key === 'Backspace') && fieldAt(at.column)) {
      type_(at, '');
    } else if ((event.ctrlKey || event.metaKey) && key === 's' && row) {
      event.preventDefault();
      void editing.leave(row.id);
    } else if (key.length === 1 && !event.ctrlKey && !event.metaKey && !event.altKey) {
      type_(at);
    }
  }

  function tick(id: number) {
    const next = new Set(ticked);
    if (!next.delete(id)) {
      next.add(id);
    }
    onTick(next);
  }

  const [top, bottom] = [Math.min(at.row, from.row), Math.max(at.row, from.row)];
  const [left, right] = [Math.min(at.column, from.column), Math.max(at.column, from.column)];

  function copied() {
    return rows
      .slice(top, bottom + 1)
      .map((row) =>
        columns
          .slice(left, right + 1)
          .map(({ key }) => {
            const field = type.fields.find((one) => one.key === key);
            return field ? written(field.type, (row.values as Values)[key] ?? null) : key === '@number' ? String(row.id) : '';
          })
          .join('\t'),
      )
      .join('\n');
  }

  function pasted(text: string) {
    const block = text.replace(/\r?\n$/, '').split(/\r?\n/);
    const several = block.length === 1 && bottom > top ? Array.from({ length: bottom - top + 1 }, () => block[0] ?? '') : block;
    onPaste(
      several.flatMap((line, i) => {
        const row = rows[top + i];
        const changes: Values = {};
        line.split('\t').forEach((cell, j) => {
          const field = fieldAt(left + j);
          if (field) {
            changes[field.key] = valueOf(field, cell, people);
          }
        });
        return row && Object.keys(changes).length > 0 ? [{ row, changes }] : [];
      }),
    );
  }

  return (
    <div
      ref={scroller}
      className={classes.grid}
      role="grid"
      tabIndex={0}
      aria-label={`${type.label}: records`}
      aria-rowcount={-1}
      aria-activedescendant={rows[at.row] && !isTyping ? `cell-${rows[at.row]?.id}-${at.column}` : undefined}
      onKeyDown={onKeyDown}
      onCopy={(event) => {
        if (!isTyping) {
          event.preventDefault();
          event.clipboardData.setData('text/plain', copied());
        }
      }}
      onPaste={(event) => {
        if (!isTyping) {
          event.preventDefault();
          pasted(event.clipboardData.getData('text/plain'));
        }
      }}
      onBlur={(event) => {
        const row = rows[at.row];
        // What opens over the page, such as a list of choices, is still the cell's.
        const isWithin = event.relatedTarget instanceof Node && scroller.current?.contains(event.relatedTarget);
        if (event.relatedTarget !== null && !isWithin && row && editing.rows.has(row.id)) {
          setTyping(false);
          void editing.leave(row.id);
        }
      }}
    >
      <div role="rowgroup" className={classes.head} style={{ width: 'max-content', minWidth: '100%' }}>
        <div role="row" className={classes.row} style={{ gridTemplateColumns: template, borderBottom: 'none' }}>
          <span role="columnheader" className={classes.tick}>
            <Checkbox
              size="xs"
              aria-label="Tick all rows fetched so far"
              checked={rows.length > 0 && ticked.size === rows.length}
              indeterminate={ticked.size > 0 && ticked.size < rows.length}
              onChange={(event) => onTick(new Set(event.currentTarget.checked ? rows.map(({ id }) => id) : []))}
            />
          </span>
          {columns.map((column) => (
            <Heading
              key={column.key}
              column={column}
              label={known.find(({ key }) => key === column.key)?.label ?? column.key}
              order={layout.sortBy === column.key ? (layout.descending ? 'descending' : 'ascending') : undefined}
              onSort={() => onLayout({ sortBy: column.key, descending: layout.sortBy === column.key && !layout.descending })}
              onWidth={(width) => onLayout({ columns: columns.map((one) => (one === column ? { ...one, width } : one)) })}
            />
          ))}
        </div>
      </div>
      <div
        role="rowgroup"
        style={{ height: virtual.getTotalSize(), position: 'relative', width: 'max-content', minWidth: '100%' }}
      >
        {items.map((item) => {
          const row = rows[item.index];
          if (!row) {
            return null;
          }
          const open = editing.rows.get(row.id);
          const reasons = Object.entries(open?.refusals ?? {}).filter(
            ([field]) => field === '' || !columns.some(({ key }) => key === field),
          );
          return (
            <div
              key={row.id}
              ref={virtual.measureElement}
              data-index={item.index}
              role="row"
              className={classes.row}
              data-row={row.id}
              data-open={open ? true : undefined}
              data-refused={open && Object.keys(open.refusals).length > 0 ? true : undefined}
              style={{
                gridTemplateColumns: template,
                position: 'absolute',
                top: 0,
                width: '100%',
                transform: `translateY(${item.start}px)`,
              }}
            >
              <span role="gridcell" className={classes.tick}>
                <Checkbox
                  size="xs"
                  aria-label={`Tick No. ${row.id}`}
                  checked={ticked.has(row.id)}
                  onChange={() => tick(row.id)}
                />
              </span>
              {columns.map(({ key }, column) => {
                const field = fieldAt(column);
                const isActive = at.row === item.index && at.column === column;
                const isWithin = top !== bottom || left !== right;
                return (
                  <div
                    key={key}
                    id={`cell-${row.id}-${column}`}
                    role="gridcell"
                    className={classes.cell}
                    data-column={key}
                    data-active={isActive || undefined}
                    data-within={
                      (isWithin && item.index >= top && item.index <= bottom && column >= left && column <= right) || undefined
                    }
                    onMouseDown={(event) => {
                      if (!isActive) {
                        setTyping(false);
                        go({ row: item.index, column }, event.shiftKey);
                      }
                    }}
                    onDoubleClick={() => type_({ row: item.index, column })}
                  >
                    {open && field ? (
                      <OpenCell field={field} record={open.record} isActive={isActive && isTyping} refusal={open.refusals[key]} />
                    ) : key === '@number' ? (
                      <span className={classes.plain}>
                        <Link to={`/records/${row.id}`} tabIndex={-1}>
                          {row.id}
                        </Link>
                      </span>
                    ) : (
                      <Cell type={type} field={field} row={row} column={key} />
                    )}
                  </div>
                );
              })}
              {reasons.length > 0 && (
                <div className={classes.refused} role="alert">
                  Not saved. {reasons.map(([, message]) => message).join(' ')}{' '}
                  <UnstyledButton onClick={() => editing.takeBack(row.id)}>Take back what was typed</UnstyledButton>
                </div>
              )}
            </div>
          );
        })}
      </div>
    </div>
  );
}

interface HeadingProps {
  column: Column;
  label: string;
  order?: 'ascending' | 'descending';
  onSort: () => void;
  onWidth: (width: number) => void;
}

/** A column's name: a press sorts by it, its edge is dragged to widen it. */
function Heading({ column, label, order, onSort, onWidth }: HeadingProps) {
  const start = useRef<{ x: number; width: number }>(undefined);
  return (
    <div role="columnheader" aria-sort={order} className={classes.heading} data-heading={column.key}>
      <UnstyledButton onClick={onSort} title={`Sort by ${label}`}>
        {label}
        {order && (order === 'ascending' ? ' ↑' : ' ↓')}
      </UnstyledButton>
      <span
        className={classes.edge}
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          start.current = { x: event.clientX, width: column.width };
        }}
        onPointerMove={(event) => {
          if (start.current) {
            onWidth(Math.max(50, Math.round(start.current.width + event.clientX - start.current.x)));
          }
        }}
        onPointerUp={() => (start.current = undefined)}
      />
    </div>
  );
}
