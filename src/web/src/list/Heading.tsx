import { UnstyledButton } from '@mantine/core';
import { useRef } from 'react';
import classes from './Grid.module.css';
import type { Column } from './layout';

/** Narrower than this, in CSS pixels, no column gets. */
const narrowest = 50;

interface Props {
  column: Column;
  label: string;
  order?: 'ascending' | 'descending';
  onSort: () => void;
  onWidth: (width: number) => void;
}

/** How much a key widens a column, in CSS pixels. */
const keyStep = 20;

/** A column's name: a press sorts by it, its edge is dragged to widen it, or Shift with an arrow does. */
export function Heading({ column, label, order, onSort, onWidth }: Props) {
  const start = useRef<{ x: number; width: number }>(undefined);
  return (
    <div role="columnheader" aria-sort={order} className={classes.heading} data-heading={column.key}>
      <UnstyledButton
        onClick={onSort}
        title={`Sort by ${label}. Shift with an arrow widens the column.`}
        onKeyDown={(event) => {
          const by = event.shiftKey ? { ArrowLeft: -keyStep, ArrowRight: keyStep }[event.key] : undefined;
          if (by) {
            event.stopPropagation();
            onWidth(Math.max(narrowest, column.width + by));
          }
        }}
      >
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
            onWidth(Math.max(narrowest, Math.round(start.current.width + event.clientX - start.current.x)));
          }
        }}
        onPointerUp={() => (start.current = undefined)}
      />
    </div>
  );
}
