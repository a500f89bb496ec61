import type { Field } from '../api/generated';
import type { FieldView } from '../engine/drawnRecord';
import type { OpenRecord } from '../engine/openRecord';
import { Meanings } from './Meanings';

interface Props {
  record: OpenRecord;
  field: Field;
  view: FieldView;
}

/** What the text in a field of a record may mean, each one press away; nothing where that is certain. */
export function Possible({ record, field, view }: Props) {
  return (
    <Meanings
      of={field.label}
      choices={view.possible}
      onChoose={({ value }) => {
        record.change(field.key, value);
        // Where one was asked one goes on.
        document.getElementById(`field-${field.key}`)?.focus();
      }}
    />
  );
}
