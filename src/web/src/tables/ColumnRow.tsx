import { Checkbox, Select } from '@mantine/core';
import { useState } from 'react';
import type { CellFormat } from '../api/generated';
import { fieldKinds, settingsOf } from '../fields/fieldKinds';
import { Typed } from '../frame/Typed';
import lines from '../sheet/lines.module.css';
import classes from './Tables.module.css';
import type { Column, Table } from './useTable';
import { writtenNumber } from '../writing/numbers';

interface Props {
  column: Column;
  table: Table;
  /** Labels of the record types to which a column may lead, by their keys. */
  labels: Map<string, string>;
  onChange: (part: Partial<Column>) => void;
  onReread: (type: Column['type'], format: CellFormat) => void;
}

/** A column: what it is taken for, how some of its cells are read, and which do not fit. */
export function ColumnRow({ column, table, labels, onChange, onReread }: Props) {
  const [areShown, setShown] = useState(false);
  const { type, format, label, firstMisfits = [], examples = [] } = column;
  const kinds = [
    ...fieldKinds
      .filter(({ value }) => value !== 'link')
      .map(({ value, label: name }) => ({ value: value as string, label: name })),
    ...table.recordTypes.map((key) => ({ value: `link ${key}`, label: `Link: ${labels.get(key) ?? key}` })),
  ];
  const kind = type.kind === 'link' ? `link ${type.recordType}` : type.kind;
  return (
    <tr data-column={column.key} data-left={!column.isTaken || undefined}>
      <td>
        <Checkbox
          size="xs"
          aria-label={`Take the column ${label}`}
          checked={column.isTaken}
          onChange={(event) => onChange({ isTaken: event.currentTarget.checked })}
        />
      </td>
      <td className={classes.field}>
        <Typed aria-label={`Label of ${label}`} value={label} onDone={(next) => next && onChange({ label: next })} />
      </td>
      <td className={classes.type}>
        <Select
          aria-label={`Type of ${label}`}
          allowDeselect={false}
          data={kinds}
          value={kind}
          onChange={(next) =>
            next &&
            onReread(
              next.startsWith('link ')
                ? { kind: 'link', recordType: next.slice(5) }
                : fieldKinds.find(({ value }) => value === next)!.first,
              format,
            )
          }
        />
        {(type.kind === 'date' || type.kind === 'dateTime') && (
          <Select
            mt={3}
            aria-label={`Order of the dates in ${label}`}
            allowDeselect={false}
            data={[
              { value: 'dayFirst', label: 'day before month' },
              { value: 'monthFirst', label: 'month before day' },
            ]}
            value={format.dates ?? 'dayFirst'}
            onChange={(dates) => onReread(type, { ...format, dates: dates as CellFormat['dates'] })}
          />
        )}
        {(type.kind === 'number' || type.kind === 'money') && (
          <Select
            mt={3}
            aria-label={`Fractions in ${label}`}
            allowDeselect={false}
            data={[
              { value: 'point', label: '1,234.5' },
              { value: 'comma', label: '1.234,5' },
            ]}
            value={format.decimals ?? 'point'}
            onChange={(decimals) => onReread(type, { ...format, decimals: decimals as CellFormat['decimals'] })}
          />
        )}
        <div className={classes.soft}>{settingsOf(type)}</div>
        {column.doubt && <div className={classes.doubt}>{column.doubt}</div>}
      </td>
      <td>
        {examples.length === 0 && <span className={classes.soft}>no cell of it says anything</span>}
        <ul className={classes.cells}>
          {examples.map(({ line, cell, readAs }) => (
            <li key={line}>
              {cell}
              {readAs !== cell && <span className={classes.soft}> → {readAs}</span>}
            </li>
          ))}
        </ul>
      </td>
      <td className={classes.number}>{writtenNumber(column.filled)}</td>
      <td>
        {column.misfits === 0 ? (
          <span className={classes.soft}>all fit</span>
        ) : (
          <>
            <button type="button" className={classes.misfits} aria-expanded={areShown} onClick={() => setShown(!areShown)}>
              {column.misfits === 1 ? '1 does not fit' : `${writtenNumber(column.misfits)} do not fit`}
            </button>
            {areShown && (
              <ul className={classes.cells}>
                {firstMisfits.map(({ line, cell }) => (
                  <li key={line}>
                    row {line}: <span className={lines.wrong}>{cell}</span>
                  </li>
                ))}
                {column.misfits > firstMisfits.length && <li>and {writtenNumber(column.misfits - firstMisfits.length)} more</li>}
              </ul>
            )}
          </>
        )}
      </td>
    </tr>
  );
}
