import { Select, TextInput } from '@mantine/core';
import { useState } from 'react';
import type { DefaultValue, Field } from '../api/generated';
import { ReadInput } from '../sheet/ReadInput';

interface Props {
  field: Field;
  onChange: (value: DefaultValue | null) => void;
}

const nothing = { value: '', label: 'nothing' };

/** What the field holds on a new record: a value, the day, whoever begins it. */
export function DefaultInput({ field, onChange }: Props) {
  const { type } = field;
  const fixed = field.default?.kind === 'value' ? field.default.value : null;
  const [typed, setTyped] = useState<string>();
  const pick = (data: { value: string; label: string }[], value: string, take: (picked: string) => DefaultValue) => (
    <Select
      label="On a new record"
      allowDeselect={false}
      data={[nothing, ...data]}
      value={value}
      onChange={(picked) => onChange(picked ? take(picked) : null)}
    />
  );
  const give = () => {
    if (typed !== undefined) {
      onChange(typed === '' ? null : { kind: 'value', value: typed });
      setTyped(undefined);
    }
  };
  switch (type.kind) {
    case 'date':
    case 'dateTime':
      return pick(
        [{ value: 'today', label: type.kind === 'date' ? 'the day on which it is begun' : 'the moment at which it is begun' }],
        field.default?.kind === 'today' ? 'today' : '',
        () => ({ kind: 'today' }),
      );
    case 'person':
      return pick([{ value: 'creator', label: 'whoever begins it' }], field.default?.kind === 'creator' ? 'creator' : '', () => ({
        kind: 'creator',
      }));
    case 'yesNo':
      return pick(
        [
          { value: 'true', label: 'yes' },
          { value: 'false', label: 'no' },
        ],
        typeof fixed === 'boolean' ? String(fixed) : '',
        (picked) => ({ kind: 'value', value: picked === 'true' }),
      );
    case 'choice':
      return pick(
        type.options.filter(({ retired }) => !retired).map(({ key, label }) => ({ value: key, label })),
        typeof fixed === 'string' ? fixed : '',
        (picked) => ({ kind: 'value', value: picked }),
      );
    case 'number':
    case 'money':
      return (
        <ReadInput
          type={type}
          size="xs"
          label="On a new record"
          placeholder="nothing"
          value={typeof fixed === 'number' ? fixed : null}
          onChange={(value) => onChange(typeof value === 'number' ? { kind: 'value', value } : null)}
        />
      );
    case 'text':
    case 'longText':
      return (
        <TextInput
          label="On a new record"
          placeholder="nothing"
          value={typed ?? (typeof fixed === 'string' ? fixed : '')}
          onChange={(event) => setTyped(event.currentTarget.value)}
          onBlur={give}
        />
      );
    default:
      return null;
  }
}
