import { Button, Group } from '@mantine/core';
import type { Field } from '../api/generated';
import type { FieldView } from '../engine/drawnRecord';
import type { OpenRecord } from '../engine/openRecord';
import { inLocale } from '../writing/dates';

interface Props {
  record: OpenRecord;
  field: Field;
  view: FieldView;
}

/** What the text in a field may mean, each one press away; nothing where that is certain. */
export function Possible({ record, field, view }: Props) {
  return view.possible.length === 0 ? null : (
    <Group gap={6} mt={4} role="group" aria-label={`What ${field.label} means`}>
      {view.possible.map(({ value, text }) => (
        <Button
          key={text}
          size="compact-xs"
          variant="default"
          onClick={() => {
            record.change(field.key, value);
            // Where one was asked one goes on.
            document.getElementById(`field-${field.key}`)?.focus();
          }}
        >
          {inLocale(text)}
        </Button>
      ))}
    </Group>
  );
}
