import { Checkbox, Group, Select, Stack, Textarea, TextInput } from '@mantine/core';
import { useState } from 'react';
import type { FieldType } from '../api/generated';
import { useRecordTypes } from '../api/recordTypes';
import { partsOf } from '../engine/parts';
import { ReadInput } from '../sheet/ReadInput';
import { optionsFrom } from './fieldKinds';

interface Props {
  type: FieldType;
  /** Whether records may hold values of it: choices that they may have are kept, and no longer offered. */
  isHeld: boolean;
  onChange: (type: FieldType) => void;
}

/** What a type has to be told beside its name: limits, unit, currency, choices, parts, where a link leads. */
export function TypeSettings({ type, isHeld, onChange }: Props) {
  const links = useRecordTypes();
  switch (type.kind) {
    case 'text':
    case 'longText':
      return (
        <Amount
          label="Characters at most"
          value={type.maxLength}
          onDone={(maxLength) => onChange({ ...type, maxLength: maxLength ?? undefined })}
        />
      );
    case 'number':
      return (
        <>
          <Group gap="xs" grow>
            <Amount
              label="Digits after the point"
              value={type.scale ?? 0}
              onDone={(scale) => onChange({ ...type, scale: scale ?? 0 })}
            />
            <TextInput
              label="Unit"
              placeholder="such as kg"
              value={type.unit ?? ''}
              onChange={(event) => onChange({ ...type, unit: event.currentTarget.value || null })}
            />
          </Group>
          <Checkbox
            label="Nothing between the thousands (a year)"
            checked={type.ungrouped ?? false}
            onChange={(event) => onChange({ ...type, ungrouped: event.currentTarget.checked })}
          />
          <Limits min={type.min} max={type.max} onDone={(limits) => onChange({ ...type, ...limits })} />
        </>
      );
    case 'money':
      return (
        <>
          <TextInput
            label="Currency"
            description="Three letters, as EUR."
            maxLength={3}
            value={type.currency ?? 'EUR'}
            onChange={(event) => onChange({ ...type, currency: event.currentTarget.value.toUpperCase() })}
          />
          <Limits min={type.min} max={type.max} onDone={(limits) => onChange({ ...type, ...limits })} />
        </>
      );
    case 'choice':
    case 'choices':
      return (
        <Choices key={type.kind} options={type.options} isHeld={isHeld} onDone={(options) => onChange({ ...type, options })} />
      );
    case 'fullName':
    case 'address': {
      const optional = type.optionalParts ?? [];
      return (
        <Checkbox.Group
          label="Parts that may be left out"
          value={optional}
          onChange={(optionalParts) => onChange({ ...type, optionalParts })}
        >
          <Stack gap={6} mt={4}>
            {partsOf(type.kind).map((part) => (
              <Checkbox key={part.key} value={part.key} label={part.label} />
            ))}
          </Stack>
        </Checkbox.Group>
      );
    }
    case 'link':
      return (
        <Select
          label="Leads to a record of type"
          placeholder="choose one"
          data={(links.data ?? []).map(({ key, label }) => ({ value: key, label }))}
          value={type.recordType || null}
          onChange={(recordType) => recordType && onChange({ ...type, recordType })}
        />
      );
    default:
      return null;
  }
}

interface Limit {
  min?: number | null;
  max?: number | null;
}

function Limits({ min, max, onDone }: Limit & { onDone: (limits: Limit) => void }) {
  return (
    <Group gap="xs" grow>
      <Amount label="Least" value={min} onDone={(next) => onDone({ min: next, max })} />
      <Amount label="Most" value={max} onDone={(next) => onDone({ min, max: next })} />
    </Group>
  );
}

/** Any number, as fine as there are. */
const anyNumber = { kind: 'number', scale: 10 } as const;

/** A number that is taken over when it has been typed; blank for none. */
function Amount({
  label,
  value,
  onDone,
}: {
  label: string;
  value: number | null | undefined;
  onDone: (value: number | null) => void;
}) {
  return (
    <ReadInput
      type={anyNumber}
      size="xs"
      label={label}
      value={value ?? null}
      onChange={(next) => onDone(typeof next === 'number' ? next : null)}
    />
  );
}

interface ChoicesProps {
  options: { key: string; label: string; retired?: boolean }[];
  isHeld: boolean;
  onDone: (options: ChoicesProps['options']) => void;
}

/** Choices, one on a line, in the order in which they are offered; a column of a spreadsheet can be pasted. */
function Choices({ options, isHeld, onDone }: ChoicesProps) {
  const [typed, setTyped] = useState<string>();
  const offered = options.filter(({ retired }) => !retired);
  const retired = options.filter((option) => option.retired);
  return (
    <Textarea
      size="xs"
      label="Choices, one on a line"
      description={
        retired.length > 0 ? `No longer offered, kept for records: ${retired.map(({ label }) => label).join(', ')}.` : undefined
      }
      autosize
      minRows={3}
      maxRows={10}
      value={typed ?? offered.map(({ label }) => label).join('\n')}
      onChange={(event) => setTyped(event.currentTarget.value)}
      onBlur={() => {
        if (typed !== undefined) {
          onDone(optionsFrom(typed, options, isHeld));
          setTyped(undefined);
        }
      }}
    />
  );
}
