import { Checkbox, VisuallyHidden } from '@mantine/core';
import { useState } from 'react';
import type { Field } from '../api/generated';
import { useRecordTypeName } from '../api/recordTypes';
import lines from '../sheet/lines.module.css';
import { kindLabel, settingsOf } from './fieldKinds';
import classes from './Fields.module.css';
import type { Usage } from './usage';
import { writtenNumber } from '../writing/numbers';

/** A field with what refers to it. */
export interface FieldRow {
  field: Field;
  usage: Usage;
}

interface Props {
  rows: FieldRow[];
  /** Key of the field by which records are called. */
  titleField: string;
  chosen: string | undefined;
  ticked: ReadonlySet<string>;
  /** How many records hold it; undefined where that is not known, or none can. */
  heldBy: (key: string) => number | undefined;
  isWrong: (key: string) => boolean;
  onChoose: (key: string) => void;
  onTick: (ticked: ReadonlySet<string>) => void;
}

type Column = 'label' | 'type' | 'rest' | 'records' | 'uses';

const columns: { key: Column; label: string }[] = [
  { key: 'label', label: 'Label' },
  { key: 'type', label: 'Type' },
  { key: 'rest', label: 'At rest' },
  { key: 'records', label: 'Records' },
  { key: 'uses', label: 'Used by' },
];

/** The fields in rows, in the order of any column; a heading pressed once more turns it round, and once again takes it back. */
export function FieldTable({ rows, titleField, chosen, ticked, heldBy, isWrong, onChoose, onTick }: Props) {
  const [sorted, setSorted] = useState<{ by: Column; isDown: boolean }>();
  const valueOf = ({ field, usage }: FieldRow, by: Column): string | number =>
    by === 'label'
      ? field.label.toLowerCase()
      : by === 'type'
        ? kindLabel(field.type.kind)
        : by === 'rest'
          ? restWords(field)
          : by === 'records'
            ? (heldBy(field.key) ?? -1)
            : usage.rules.length;
  const shown = sorted
    ? rows.toSorted((one, other) => {
        const [a, b] = [valueOf(one, sorted.by), valueOf(other, sorted.by)];
        const order = typeof a === 'number' && typeof b === 'number' ? a - b : String(a).localeCompare(String(b));
        return sorted.isDown ? -order : order;
      })
    : rows;
  return (
    <table className={classes.table}>
      <thead>
        <tr>
          <th className={classes.tick}>
            <VisuallyHidden>Ticked</VisuallyHidden>
          </th>
          {columns.map(({ key, label }) => {
            const isSorted = sorted?.by === key;
            return (
              <th key={key} aria-sort={isSorted ? (sorted.isDown ? 'descending' : 'ascending') : 'none'}>
                <button
                  type="button"
                  className={classes.sort}
                  onClick={() =>
                    setSorted(!isSorted ? { by: key, isDown: false } : sorted.isDown ? undefined : { by: key, isDown: true })
                  }
                >
                  {label} {isSorted && (sorted.isDown ? '▾' : '▴')}
                </button>
              </th>
            );
          })}
        </tr>
      </thead>
      <tbody>
        {shown.map(({ field, usage }) => (
          <Row
            key={field.key}
            field={field}
            usage={usage}
            records={heldBy(field.key)}
            isTitle={field.key === titleField}
            isChosen={field.key === chosen}
            isTicked={ticked.has(field.key)}
            isWrong={isWrong(field.key)}
            onChoose={() => onChoose(field.key)}
            onTick={() =>
              onTick(
                ticked.has(field.key) ? new Set([...ticked].filter((key) => key !== field.key)) : new Set([...ticked, field.key]),
              )
            }
          />
        ))}
      </tbody>
    </table>
  );
}

interface RowProps extends FieldRow {
  records: number | undefined;
  isTitle: boolean;
  isChosen: boolean;
  isTicked: boolean;
  isWrong: boolean;
  onChoose: () => void;
  onTick: () => void;
}

function Row({ field, usage, records, isTitle, isChosen, isTicked, isWrong, onChoose, onTick }: RowProps) {
  const settings = settingsOf(field.type, useRecordTypeName());
  return (
    <tr data-field={field.key} data-chosen={isChosen || undefined}>
      <td className={classes.tick}>
        <Checkbox size="xs" aria-label={`Tick ${field.label}`} checked={isTicked} onChange={onTick} />
      </td>
      <td>
        <button type="button" className={classes.choose} aria-expanded={isChosen} onClick={onChoose}>
          {field.label || '(no label)'}
        </button>
        {isTitle && <span className={lines.word}>records are called by it</span>}
        {field.retired && <span className={lines.word}>retired</span>}
        {isWrong && <span className={lines.wrong}> has a problem</span>}
      </td>
      <td>
        {kindLabel(field.type.kind)}
        {settings && <span className={classes.soft}> {settings}</span>}
      </td>
      <td>{restWords(field) || '—'}</td>
      <td className={classes.number}>{records === undefined ? '—' : writtenNumber(records)}</td>
      <td className={classes.soft}>
        {[
          count(usage.rules.length, 'rule'),
          usage.forms.length === 0 ? 'on no form' : usage.forms.join(', '),
          usage.examples.length > 0 && count(usage.examples.length, 'example'),
        ]
          .filter(Boolean)
          .join(' · ')}
      </td>
    </tr>
  );
}

function restWords({ rest }: Field): string {
  const { visibility = 'shown', requirement = 'optional', access = 'open' } = rest ?? {};
  return [
    visibility === 'hidden' && 'hidden',
    requirement === 'toMoveOn' && 'required to move on',
    requirement === 'toSave' && 'required to save',
    access === 'locked' && 'locked',
  ]
    .filter(Boolean)
    .join(', ');
}

const count = (number: number, noun: string) => (number === 0 ? `no ${noun}` : `${number} ${noun}${number === 1 ? '' : 's'}`);
