import { Checkbox, UnstyledButton } from '@mantine/core';
import { Link } from 'react-router-dom';
import type { Field, ListRow, RecordType } from '../api/generated';
import type { Block } from './block';
import { Cell } from './Cell';
import { formOf } from './changing';
import classes from './Grid.module.css';
import { OpenCell } from './OpenCell';
import { fieldLabel } from '../sheet/lookUp';
import { inLocale } from '../writing/dates';
import type { OpenRow } from './editedRows';
import { useMeetingWords } from './useMeetingWords';

interface Props {
  type: RecordType;
  row: ListRow;
  /** Where it stands in the list, and how far down, in CSS pixels. */
  index: number;
  start: number;
  measure: (element: HTMLElement | null) => void;
  /** The columns' widths, as a grid takes them. */
  template: string;
  columns: { key: string; field?: Field }[];
  /** The column where one is; undefined where one is in another row. */
  at?: number;
  /** The cells that are marked. */
  block: Block;
  isTyping: boolean;
  /** The row as it is typed into; undefined where nobody types. */
  open?: OpenRow;
  isTicked: boolean;
  onTick: () => void;
  onGo: (column: number, isExtending: boolean) => void;
  onOpen: (column: number) => void;
  /** There is an input now: answers what was typed before. */
  onInput: () => string | undefined;
  onTakeBack: () => void;
}

/** A record in the list: its cells, and below them why it was not saved. */
export function GridRow({
  type,
  row,
  index,
  start,
  measure,
  template,
  columns,
  at,
  block,
  isTyping,
  open,
  isTicked,
  onTick,
  onGo,
  onOpen,
  onInput,
  onTakeBack,
}: Props) {
  const isBlock = block.top !== block.bottom || block.left !== block.right;
  const isRowWithin = isBlock && index >= block.top && index <= block.bottom;
  const { collided } = useMeetingWords(type);
  const refusals = { ...open?.refusals, ...(open && open.collisions.length > 0 ? collided(open.collisions) : {}) };
  // All of them in words; the cell into which one types says its own.
  const typedInto = isTyping && at !== undefined ? columns[at]?.key : undefined;
  const reasons = Object.entries(refusals).filter(
    ([field]) => field !== typedInto || !open?.record.state('field', field).isVisible,
  );
  const labelOf = (key: string) => (key ? `${fieldLabel({ recordType: type }, key)}: ` : '');
  return (
    <div
      ref={measure}
      data-index={index}
      role="row"
      className={classes.row}
      data-row={row.id}
      data-open={open ? true : undefined}
      data-edition={open?.edition}
      data-refused={Object.keys(refusals).length > 0 || undefined}
      style={{ gridTemplateColumns: template, position: 'absolute', top: 0, width: '100%', transform: `translateY(${start}px)` }}
    >
      <span role="gridcell" className={classes.tick}>
        <Checkbox size="xs" aria-label={`Tick No. ${row.id}`} checked={isTicked} onChange={onTick} />
      </span>
      {columns.map(({ key, field }, column) => {
        const isActive = at === column;
        return (
          <div
            key={key}
            id={`cell-${row.id}-${column}`}
            role="gridcell"
            className={classes.cell}
            data-column={key}
            data-active={isActive || undefined}
            data-within={(isRowWithin && column >= block.left && column <= block.right) || undefined}
            onMouseDown={(event) => isActive || onGo(column, event.shiftKey)}
            onDoubleClick={() => onOpen(column)}
          >
            {open && field && open.form === formOf(type, key) ? (
              <OpenCell
                field={field}
                record={open.record}
                isActive={isActive && isTyping && !open.isSaving}
                refusal={refusals[key]}
                onInput={onInput}
              />
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
      {Object.keys(refusals).length > 0 && (
        <div className={classes.refused} role="alert">
          {open?.isWaiting ? 'Not saved yet; it is tried again once that passes.' : 'Not saved.'}{' '}
          {reasons.map(([of, message]) => `${labelOf(of)}${inLocale(message)}`).join(' ')}{' '}
          <UnstyledButton onClick={onTakeBack}>Take back what was typed</UnstyledButton> or{' '}
          <Link to={`/records/${row.id}`}>open the record</Link>.
        </div>
      )}
    </div>
  );
}
