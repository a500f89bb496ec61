import { Text } from '@mantine/core';
import type { FieldType } from '../api/generated';
import { readNumber, writtenAmount, writtenNumber } from '../writing/numbers';
import { TypedInput, type TypedProps } from './TypedInput';

interface Props extends TypedProps {
  type: Extract<FieldType, { kind: 'number' | 'money' }>;
}

/** A number with what it counts, or an amount with its currency. */
export function NumberInput({ type, ...shared }: Props) {
  const isMoney = type.kind === 'money';
  const unit = (isMoney ? type.currency : type.unit) ?? '';
  const beside = unit ? (
    <Text size="xs" c="dimmed">
      {unit}
    </Text>
  ) : undefined;
  return (
    <TypedInput
      {...shared}
      inputMode="decimal"
      read={(text) => readNumber(text, unit)}
      write={(value) => (typeof value === 'number' ? (isMoney ? writtenAmount : writtenNumber)(value) : String(value ?? ''))}
      leftSection={isMoney ? beside : undefined}
      leftSectionWidth={isMoney ? 36 : undefined}
      rightSection={isMoney ? undefined : beside}
    />
  );
}
