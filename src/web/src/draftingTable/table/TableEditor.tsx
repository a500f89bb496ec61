import { Button, SegmentedControl } from '@mantine/core';
import { IconPlus } from '@tabler/icons-react';
import { useState } from 'react';
import type { DecisionTable, HitPolicy, Subject } from '../../api/generated';
import { Chip } from '../rule/Chip';
import { offerOf, subjectOptions } from '../rule/offers';
import classes from '../rule/OpenRule.module.css';
import { Problems } from '../rule/Problems';
import { useWriting } from '../rule/writing';
import { withDriver } from './columns';
import { emptyRow } from './cells';
import { gridOf, tableOf } from './grid';
import { GridEditor } from './GridEditor';
import { OutputChip } from './OutputChip';
import { ReachNotes } from './ReachNotes';
import { TableCells } from './TableCells';
import { useReach } from './useReach';

interface Props {
  table: DecisionTable;
  /** Number of the row in force for the record on the sheet; -1 for none. */
  rowInForce: number;
  onChange: (table: DecisionTable) => void;
}

const hits: { value: HitPolicy; label: string; note: string }[] = [
  { value: 'first', label: 'the first row that matches counts', note: '' },
  { value: 'unique', label: 'no two rows may match', note: 'checked' },
  { value: 'any', label: 'rows that match say the same', note: 'checked' },
];

/** A decision table edited as a table, or as a grid where it can be seen as one. */
export function TableEditor({ table, rowInForce, onChange }: Props) {
  const writing = useWriting();
  const driver = table.drivers[0] && offerOf(writing, table.drivers[0]);
  const grid = gridOf(table, driver);
  const reach = useReach(table);
  const [isGrid, setGrid] = useState(grid !== undefined && grid.elements.length === 0);
  const setDriver = (value: string, at?: number) => onChange(withDriver(table, JSON.parse(value) as Subject, at));
  if (!driver) {
    return (
      <div className={classes.line}>
        <span className={classes.keyword}>By</span>
        <Chip
          blank="driver"
          label="choose what it depends on"
          isMissing
          isNext
          options={() => subjectOptions(writing)}
          onPick={(value) => {
            setGrid(true);
            setDriver(value, 0);
          }}
        />
      </div>
    );
  }
  return (
    <div>
      <div className={classes.line}>
        {grid && (
          <SegmentedControl
            size="xs"
            aria-label="How the table is drawn"
            data={[
              { value: 'grid', label: 'grid' },
              { value: 'table', label: 'table' },
            ]}
            value={isGrid ? 'grid' : 'table'}
            onChange={(next) => setGrid(next === 'grid')}
          />
        )}
        <Chip
          blank="hit policy"
          label={hits.find(({ value }) => value === table.hit)!.label}
          options={() => hits}
          onPick={(hit) => onChange({ ...table, hit: hit as HitPolicy })}
        />
      </div>
      {isGrid && grid ? (
        <GridEditor grid={grid} onChange={(next) => onChange(tableOf(next))} />
      ) : (
        <>
          <TableCells table={table} rowInForce={rowInForce} reach={reach} onChange={onChange} />
          <div className={classes.line}>
            <Button
              size="compact-xs"
              variant="subtle"
              leftSection={<IconPlus size={12} />}
              onClick={() => onChange({ ...table, rows: [...table.rows, emptyRow(table)] })}
            >
              row
            </Button>
            <Chip blank="driver" label="+ driver" options={() => subjectOptions(writing)} onPick={(value) => setDriver(value)} />
            <OutputChip table={table} onChange={onChange} />
          </div>
        </>
      )}
      <ReachNotes reach={reach} />
      <Problems problems={writing.problems} place="/table" isExact />
    </div>
  );
}
