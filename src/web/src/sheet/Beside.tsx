import { Button } from '@mantine/core';
import type { Field } from '../api/generated';
import type { FieldView } from '../engine/drawnRecord';
import type { OpenRecord } from '../engine/openRecord';
import { Said } from './Said';
import classes from './Said.module.css';

interface Props {
  record: OpenRecord;
  field: Field;
  view: FieldView;
  isReadOnly: boolean;
}

/** What rules say beside a field: messages, and suggestions to be taken over with one press. */
export function Beside({ record, field, view, isReadOnly }: Props) {
  const suggestions = isReadOnly ? [] : view.suggestions;
  return (
    <>
      <Said messages={view.messages} />
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
