import { Button } from '@mantine/core';
import type { Field } from '../api/generated';
import type { FieldView } from '../engine/drawnRecord';
import type { OpenRecord } from '../engine/openRecord';
import { inLocale } from '../writing/dates';
import { shown } from '../writing/shown';
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
          <span>{inLocale(suggestion.reason)}</span>
          <Button size="compact-xs" variant="default" onClick={() => record.change(field.key, suggestion.value)}>
            Use {shown(field.type, suggestion.value)}
          </Button>
        </div>
      ))}
    </>
  );
}
