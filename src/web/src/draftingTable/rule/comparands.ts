import type { Comparand, ComparandRelativeDay, SubjectOffer } from '../../api/generated';
import type { Value } from '../../engine/answers';
import { offerOf } from './offers';
import type { Writing } from './writing';

/** A fixed value as the option that stands for it. */
export const fixed = (value: Value) => JSON.stringify({ kind: 'literal', value });

export const ofExpression = (expression: string): Comparand => ({ kind: 'expression', expression });

const units = { day: 'days', week: 'days', month: 'months', year: 'years' } as const;

/** "15 years ago", "in 30 days", "today minus 2 weeks" as a day counted from today; null for anything else. */
export function relativeDay(text: string): ComparandRelativeDay | null {
  if (/^today$/i.test(text)) {
    return { kind: 'day', amount: 0, unit: 'days' };
  }
  const found = /^(in |today (?:plus|minus|\+|-) ?)?(\d{1,5}) (day|week|month|year)s?( ago| from now)?$/i.exec(text);
  if (!found || (!found[1] && !found[4])) {
    return null;
  }
  const unit = found[3]!.toLowerCase() as keyof typeof units;
  const isBack = /ago/i.test(found[4] ?? '') || /minus|-/i.test(found[1] ?? '');
  const amount = Number(found[2]) * (unit === 'week' ? 7 : 1) * (isBack ? -1 : 1);
  return { kind: 'day', amount, unit: units[unit] };
}

/** What is read in the blank. */
export function comparandLabel(
  writing: Pick<Writing, 'vocabulary'>,
  { input, values, unit }: SubjectOffer,
  comparand: Comparand,
  lookedUp: (value: string) => string | undefined = () => undefined,
): string {
  switch (comparand.kind) {
    case 'subject':
      return `the value of ${offerOf(writing, comparand.subject)?.label ?? '…'}`;
    case 'day':
      return comparand.amount === 0
        ? 'today'
        : `today ${comparand.amount < 0 ? 'minus' : 'plus'} ${Math.abs(comparand.amount)} ${comparand.unit ?? 'days'}`;
    case 'expression':
      return `the result of ${comparand.expression}`;
    case 'literal': {
      const { value } = comparand;
      if (value === null) {
        return 'nothing';
      }
      if (typeof value === 'boolean') {
        return value ? 'yes' : 'no';
      }
      if (typeof value === 'number') {
        return lookedUp(fixed(value)) ?? amount(value, unit, input);
      }
      return Array.isArray(value)
        ? value.map((one) => values.find(({ key }) => key === one)?.label ?? one).join(' + ')
        : typeof value === 'object'
          ? Object.values(value).join(' ')
          : (values.find(({ key }) => key === value)?.label ??
            lookedUp(fixed(value)) ??
            (input === 'text' ? `“${value}”` : value));
    }
  }
}

/** Money with its currency before it, anything else with its unit after it. */
function amount(value: number, unit: string | null | undefined, input: SubjectOffer['input']): string {
  const digits = value.toLocaleString('en');
  return input === 'record'
    ? `No. ${value}`
    : !unit
      ? digits
      : /^[A-Z]{3}$/.test(unit)
        ? `${unit} ${digits}`
        : `${digits} ${unit}`;
}
