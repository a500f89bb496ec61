import { Button } from '@mantine/core';
import type { Field } from '../api/generated';
import type { FormRecord } from '../engine/formRecord';
import { Said } from './Said';
import classes from './Said.module.css';

/** What rules say beside a field: messages, and suggestions to be taken over with one press. */
export function Beside({ record, field, isReadOnly }: { record: FormRecord; field: Field; isReadOnly: boolean }) {
  const suggestions = isReadOnly ? [] : record.suggestions().filter((s) => s.field === field.key);
  return (
    <>
      <Said messages={record.messages().filter((m) => m.at && m.at.key.split('.')[0] === field.key && m.at.kind !== 'section')} />
      {suggestions.map((suggestion) => (
        <div key={suggestion.rule} className={classes.suggestion} data-suggestion>
          <span>{suggestion.reason}</span>
          <Button size="compact-xs" variant="default" onClick={() => record.change(field.key, suggestion.value)}>
            Use {shown(field, suggestion.value)}
          </Button>
        </div>
      ))}
    </>
  );
}

function shown(field: Field, value: unknown): string {
  const options = 'options' in field.type ? field.type.options : [];
  return typeof value === 'boolean'
    ? value
      ? 'yes'
      : 'no'
    : typeof value === 'object'
      ? Object.values(value ?? {}).join(' ')
      : (options.find((o) => o.key === value)?.label ?? String(value));
}
