import { Text } from '@mantine/core';
import type { FieldType } from '../api/generated';
import { writtenAmount, writtenNumber } from '../writing/numbers';
import { TypedInput, type TypedProps } from './TypedInput';

interface Props extends TypedProps {
  type: Extract<FieldType, { kind: 'number' | 'money' }>;
}

/** A number with what it counts, or an amount with its currency. */
export function NumberInput({ type, ...shared }: Props) {
  const isMoney = type.kind === 'money';
  const unit = (type.kind === 'money' ? type.currency : type.unit) ?? '';
  const beside = unit ? (
    <Text size="xs" c="dimmed">
      {unit}
    </Text>
  ) : undefined;
  return (
    <TypedInput
      {...shared}
      inputMode="decimal"
      write={(value) =>
        typeof value !== 'number'
          ? String(value ?? '')
          : type.kind === 'money'
            ? writtenAmount(value)
            : writtenNumber(value, !type.ungrouped)
      }
      leftSection={isMoney ? beside : undefined}
      leftSectionWidth={isMoney ? 36 : undefined}
      rightSection={isMoney ? undefined : beside}
    />
  );
}
