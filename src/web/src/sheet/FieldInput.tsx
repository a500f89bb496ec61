import { NumberInput, SegmentedControl, Select, Text, Textarea, TextInput } from '@mantine/core';
import type { Field } from '../api/generated';
import type { Value } from '../engine/formRecord';
import classes from './FieldInput.module.css';

interface Props {
  field: Field;
  value: Value;
  isReadOnly: boolean;
  describedBy?: string;
  onChange: (value: Value) => void;
}

/** The input that fits the field's type. */
export function FieldInput({ field, value, isReadOnly, describedBy, onChange }: Props) {
  const type = field.type;
  const common = {
    id: `field-${field.key}`,
    variant: 'unstyled',
    size: 'sm',
    readOnly: isReadOnly,
    'aria-describedby': describedBy,
  } as const;
  const text = value === null ? '' : String(value);
  switch (type.kind) {
    case 'text':
      return <TextInput {...common} value={text} onChange={(e) => onChange(e.currentTarget.value || null)} />;
    case 'longText':
      return (
        <Textarea
          {...common}
          autosize
          minRows={1}
          maxRows={5}
          value={text}
          onChange={(e) => onChange(e.currentTarget.value || null)}
        />
      );
    case 'date':
      return <TextInput {...common} type="date" value={text} onChange={(e) => onChange(e.currentTarget.value || null)} />;
    case 'number':
    case 'money':
      return (
        <NumberInput
          {...common}
          value={(value as number | null) ?? ''}
          decimalScale={type.kind === 'money' ? 2 : type.scale}
          thousandSeparator=","
          hideControls
          leftSection={
            type.kind === 'money' ? (
              <Text size="xs" c="dimmed">
                {type.currency}
              </Text>
            ) : undefined
          }
          leftSectionWidth={type.kind === 'money' ? 36 : undefined}
          rightSection={
            type.kind === 'number' && type.unit ? (
              <Text size="xs" c="dimmed">
                {type.unit}
              </Text>
            ) : undefined
          }
          onChange={(next) => onChange(next === '' ? null : Number(next))}
        />
      );
    case 'yesNo':
      return (
        <SegmentedControl
          id={common.id}
          size="xs"
          classNames={{ root: classes.answers, label: classes.answer, indicator: classes.given }}
          readOnly={isReadOnly}
          aria-label={field.label}
          data={[
            { value: 'yes', label: 'Yes' },
            { value: 'no', label: 'No' },
            { value: '', label: 'Not answered' },
          ]}
          value={value === null ? '' : value ? 'yes' : 'no'}
          onChange={(next) => onChange(next === '' ? null : next === 'yes')}
        />
      );
    case 'choice':
      return (
        <Select
          {...common}
          clearable={!isReadOnly}
          searchable
          selectFirstOptionOnChange
          data={type.options.filter((o) => !o.retired || o.key === value).map((o) => ({ value: o.key, label: o.label }))}
          value={value as string | null}
          onChange={onChange}
        />
      );
  }
}
