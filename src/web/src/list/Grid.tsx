import { Checkbox } from '@mantine/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useRef, type KeyboardEvent } from 'react';
import type { ColumnView, Field, ListRow, RecordType } from '../api/generated';
import { usePeople } from '../api/people';
import type { Value, Values } from '../engine/answers';
import { useNamed } from '../records/useNamed';
import { cellsOf, changesOf, pasted, tableOf, textOf, type BlockColumn } from './block';
import { beside, isOpen } from './Cell';
import { formOf } from './changing';
import classes from './Grid.module.css';
import { GridRow } from './GridRow';
import { Heading } from './Heading';
import type { Layout } from './layout';
import { useCursor, type At } from './useCursor';
import type { useEditing } from './useEditing';
import { useTyping } from './useTyping';

interface Props {
  type: RecordType;
  known: ColumnView[];
  layout: Layout;
  onLayout: (change: Partial<Layout>) => void;
  rows: ListRow[];
  onMore?: () => void;
  /** Something is about to be changed here: the rows are to stay where they are. */
  onHold: () => void;
  editing: ReturnType<typeof useEditing>;
  ticked: ReadonlySet<number>;
  onTick: (ids: ReadonlySet<number>) => void;
  /** Somebody wanted to type into a cell that is locked or hidden; undefined once one has gone on. */
  onClosed: (cell: { row: number; field: Field } | undefined) => void;
  /** Cells were pasted: what that makes of the rows. */
  onPaste: (pasted: ReturnType<typeof changesOf>) => void;
  /** What was done last is to be undone. */
  onUndo: () => void;
}

const rowHeight = 33;

/** How long people take from a word to the next, in milliseconds. */
const betweenWords = 700;

/** The list as a sheet of cells: walked through by arrow keys, typed into in place, copied from and pasted into in blocks. */
export function Grid({
  type,
  known,
  layout,
  onLayout,
  rows,
  onMore,
  onHold,
  editing,
  ticked,
  onTick,
  onClosed,
  onPaste,
  onUndo,
}: Props) {
  'use no memo';
  const scroller = useRef<HTMLDivElement>(null);
  const typing = useTyping(type, editing);
  /** When a letter was last typed at a cell. */
  const lastLetter = useRef(-betweenWords);
  const { isTyping } = typing;
  const written = useNamed();
  const { columns } = layout;
  const { at, block, go: goTo } = useCursor(rows, columns.length);
  const template = `34px ${columns.map(({ width }) => `${width}px`).join(' ')}`;
  const nameOf = usePeople();
  const shown = columns.map(({ key }): BlockColumn => ({
    key,
    label: known.find((one) => one.key === key)?.label ?? key,
    field: type.fields.find((field) => field.key === key),
  }));
  /** What a cell says to whoever copies it: a linked record by its number as well. */
  function writtenCell(row: ListRow, { key, field }: BlockColumn): string {
    if (!field) {
      return beside(type, row, key, nameOf);
    }
    const value = ((row.values as Values)[key] as Value | undefined) ?? null;
    const title =
      field.type.kind === 'link' ? (row.links as Record<string, string>)[`${field.type.recordType} ${String(value)}`] : '';
    return title ? `${title} (No. ${String(value)})` : written(field.type, value);
  }

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
    const left = rows[at.row];
    onClosed(undefined);
    const next = goTo(to, isExtending);
    if (left && next.row !== at.row) {
      void editing.leave(left.id);
    }
    virtual.scrollToIndex(next.row, { align: 'auto' });
  }

  function stopTyping(to: At) {
    typing.finish();
    (document.activeElement as HTMLElement | null)?.blur();
    go(to);
    scroller.current?.focus({ preventScroll: true });
  }

  /** A cell that can be typed into, by the row's rules as they are known; where it cannot, that is said. */
  function open(to: At) {
    const [row, field] = [rows[to.row], shown[to.column]?.field];
    if (!row || !field) {
      return undefined;
    }
    const isHere = editing.rows.get(row.id)?.form === formOf(type, field.key);
    if (isHere || isOpen(row.cells.find((one) => one.field === field.key))) {
      return { row, field };
    }
    onClosed({ row: row.id, field });
    return undefined;
  }

  function beginTyping(to: At, text?: string) {
    const cell = open(to);
    if (cell) {
      onHold();
      typing.begin(cell.row, cell.field, text);
    }
  }

  function onKeyDown(event: KeyboardEvent) {
    const { key, shiftKey } = event;
    const move = { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1] }[key];
    const row = rows[at.row];
    const isLetter = key.length === 1 && !event.ctrlKey && !event.metaKey && !event.altKey;
    if (isTyping) {
      if (event.target === scroller.current && (isLetter || key === 'Backspace') && typing.type(key)) {
        event.preventDefault();
      } else if (key === 'Escape') {
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
    if (event.target !== scroller.current) {
      // Headings, ticks and links have keys of their own; arrows lead back to the cells.
      if (!move) {
        return;
      }
      scroller.current?.focus({ preventScroll: true });
    }
    if (move) {
      event.preventDefault();
      go({ row: at.row + (move[0] ?? 0), column: at.column + (move[1] ?? 0) }, shiftKey);
    } else if (key === 'Tab') {
      // From cell to cell as far as the row goes, then out of the grid.
      const column = at.column + (shiftKey ? -1 : 1);
      if (row && columns[column]) {
        event.preventDefault();
        go({ row: at.row, column });
      }
    } else if (key === 'PageDown' || key === 'PageUp') {
      event.preventDefault();
      go({ row: at.row + (key === 'PageDown' ? 15 : -15), column: at.column }, shiftKey);
    } else if (key === 'Home' || key === 'End') {
      event.preventDefault();
      go({ row: at.row, column: key === 'Home' ? 0 : columns.length - 1 });
    } else if (key === 'Enter' || key === 'F2') {
      event.preventDefault();
      beginTyping(at);
    } else if (key === 'Escape' && row && editing.rows.has(row.id)) {
      editing.takeBack(row.id);
    } else if (key === ' ' && row) {
      event.preventDefault();
      // Between the words that somebody types at a cell that is closed it ticks nothing.
      if (event.timeStamp - lastLetter.current > betweenWords) {
        tick(row.id);
      }
    } else if (key === 'Delete' || key === 'Backspace') {
      const cell = open(at);
      if (cell) {
        onHold();
        typing.clear(cell.row, cell.field);
      }
    } else if ((event.ctrlKey || event.metaKey) && key === 'z') {
      event.preventDefault();
      if (row && editing.rows.has(row.id)) {
        void editing.takeBack(row.id);
      } else {
        onUndo();
      }
    } else if ((event.ctrlKey || event.metaKey) && key === 's' && row) {
      event.preventDefault();
      void editing.leave(row.id);
    } else if (isLetter) {
      event.preventDefault();
      lastLetter.current = event.timeStamp;
      beginTyping(at, key);
    }
  }

  function tick(id: number) {
    const next = new Set(ticked);
    if (!next.delete(id)) {
      next.add(id);
    }
    onTick(next);
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
          const cells = cellsOf(rows, shown, block, writtenCell);
          event.clipboardData.setData('text/plain', textOf(cells));
          event.clipboardData.setData('text/html', tableOf(cells));
        }
      }}
      onPaste={(event) => {
        if (!isTyping) {
          event.preventDefault();
          onHold();
          onPaste(changesOf(pasted(event.clipboardData.getData('text/plain')), rows, shown, block, writtenCell));
        }
      }}
      onBlur={(event) => {
        const row = rows[at.row];
        // What opens over the page, such as a list of choices, is still the cell's.
        const isWithin = event.relatedTarget instanceof Node && scroller.current?.contains(event.relatedTarget);
        if (event.relatedTarget !== null && !isWithin && row) {
          typing.finish();
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
          return (
            <GridRow
              key={row.id}
              measure={virtual.measureElement}
              type={type}
              row={row}
              index={item.index}
              start={item.start}
              template={template}
              columns={shown}
              at={at.row === item.index ? at.column : undefined}
              block={block}
              isTyping={isTyping}
              open={editing.rows.get(row.id)}
              isTicked={ticked.has(row.id)}
              onTick={() => tick(row.id)}
              onGo={(column, isExtending) => {
                typing.finish();
                go({ row: item.index, column }, isExtending);
              }}
              onOpen={(column) => beginTyping({ row: item.index, column })}
              onInput={typing.take}
              onTakeBack={() => {
                void editing.takeBack(row.id);
                scroller.current?.focus({ preventScroll: true });
              }}
            />
          );
        })}
      </div>
    </div>
  );
}
