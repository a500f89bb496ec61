import { useDebouncedValue } from '@mantine/hooks';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { answered } from '../../api/client';
import { peopleQuery } from '../../api/people';
import { listRecords, type Comparand, type SubjectOffer } from '../../api/generated';
import { Chip, type ChipOption } from './Chip';
import { comparandLabel, fixed, ofExpression, relativeDay } from './comparands';
import { offerOf } from './offers';
import { useWriting, type Writing } from './writing';

interface Props {
  offer: SubjectOffer;
  comparand: Comparand | undefined;
  isWrong?: boolean;
  /** Whether it adds to the values before it. */
  isFurther?: boolean;
  /** What the blank says while it is empty. */
  placeholder?: string;
  /** The values that are taken, where several can be. */
  chosen?: Comparand[];
  onToggle?: (comparand: Comparand) => void;
  onPick: (comparand: Comparand) => void;
  onRemove?: () => void;
}

const removal = 'remove';

/** What a subject is compared with, or a field is given: by the input that fits, another field, a day counted from today, or an expression. */
export function ComparandChip({
  offer,
  comparand,
  isWrong,
  isFurther,
  placeholder = 'choose a value',
  chosen,
  onToggle,
  onPick,
  onRemove,
}: Props) {
  const writing = useWriting();
  const found = useLookUp(offer);
  const { input } = offer;
  const options = (): ChipOption[] => [
    ...found.options,
    ...literals(offer),
    ...(input === 'date' || input === 'dateTime' ? days : []),
    ...others(writing, offer),
    ...(onRemove ? [{ value: removal, label: 'Delete this' }] : []),
  ];
  return (
    <Chip
      blank="comparand"
      label={comparand ? comparandLabel(writing, offer, comparand, found.label) : placeholder}
      isMissing={!comparand && !isFurther}
      isFurther={isFurther}
      current={comparand && JSON.stringify(comparand)}
      isWrong={isWrong}
      placeholder={hints[input] ?? 'Pick, type to filter, or = for an expression'}
      options={options}
      typed={(text) => typedOptions(text, offer)}
      completions={(text) => completed(text, writing)}
      onSearch={found.search}
      chosen={chosen?.map((one) => JSON.stringify(one))}
      onToggle={onToggle && ((value) => onToggle(JSON.parse(value) as Comparand))}
      onPick={(value) => (value === removal ? onRemove!() : onPick(JSON.parse(value) as Comparand))}
    />
  );
}

const hints: Partial<Record<SubjectOffer['input'], string>> = {
  text: 'Type a text, or = for an expression',
  number: 'Type a number, or = for an expression',
  date: 'Type a date such as 2026-11-24, or “15 years ago”',
  dateTime: 'Type a date and time such as 2026-11-24 09:30',
};

const days: ChipOption[] = [
  { value: JSON.stringify({ kind: 'day', amount: 0, unit: 'days' }), label: 'today', group: 'Counted from today' },
  ...(
    [
      ['30 days ago', -30, 'days'],
      ['in 30 days', 30, 'days'],
      ['a year ago', -1, 'years'],
    ] as const
  ).map(([label, amount, unit]) => ({
    value: JSON.stringify({ kind: 'day', amount, unit }),
    label,
    group: 'Counted from today',
  })),
];

function literals({ input, values }: SubjectOffer): ChipOption[] {
  return input === 'yesNo'
    ? [
        { value: fixed(true), label: 'yes' },
        { value: fixed(false), label: 'no' },
      ]
    : values.filter(({ retired }) => !retired).map(({ key, label }) => ({ value: fixed(key), label }));
}

function others(writing: Writing, offer: SubjectOffer): ChipOption[] {
  return offer.fields.map((field) => ({
    value: JSON.stringify({ kind: 'subject', subject: { kind: 'field', field } }),
    label: offerOf(writing, { kind: 'field', field })?.label ?? field,
    group: 'The value of another field',
  }));
}

function typedOptions(text: string, { input, unit }: SubjectOffer): ChipOption[] {
  if (text.startsWith('=')) {
    const expression = text.slice(1).trim();
    return expression === '' ? [] : [{ value: JSON.stringify(ofExpression(expression)), label: `the result of ${expression}` }];
  }
  switch (input) {
    case 'text':
      return [{ value: fixed(text), label: `“${text}”` }];
    case 'number': {
      const number = Number(text.replaceAll(/[,\s]|^[A-Z]{3}\b|[€$£]/g, ''));
      return Number.isFinite(number) && /\d/.test(text)
        ? [{ value: fixed(number), label: [number.toLocaleString('en'), unit].filter(Boolean).join(' ') }]
        : [];
    }
    case 'date':
    case 'dateTime': {
      const day = relativeDay(text);
      const date = /^\d{4}-\d{2}-\d{2}([ T]\d{2}:\d{2}(:\d{2})?)?$/.exec(text);
      return [
        ...(day ? [{ value: JSON.stringify(day), label: text }] : []),
        ...(date && (date[1] === undefined) === (input === 'date')
          ? [{ value: fixed(text.replace(' ', 'T')), label: text }]
          : []),
      ];
    }
    default:
      return [];
  }
}

/** Fields for the word that is being typed in an expression. */
function completed(text: string, { type }: Writing): ChipOption[] {
  const word = text.startsWith('=') ? (/[A-Za-z_][\w.]*$/.exec(text)?.[0] ?? '') : '';
  return word.length < 1
    ? []
    : type.fields
        .filter(({ key, label }) => `${key} ${label}`.toLowerCase().includes(word.toLowerCase()) && key !== word)
        .slice(0, 8)
        .map(({ key, label }) => ({
          value: text.slice(0, text.length - word.length) + key,
          label: key,
          note: label,
          group: 'Go on with',
        }));
}

/** Records or people, looked up on the server once the list has been opened. */
function useLookUp({ input, recordType }: SubjectOffer) {
  const [search, setSearch] = useState<string>();
  const [searched] = useDebouncedValue(search, 150);
  const records = useQuery({
    queryKey: ['samples', recordType, searched ?? ''],
    queryFn: () => answered(listRecords({ path: { key: recordType! }, query: { search: searched ?? '' } })),
    enabled: input === 'record' && Boolean(recordType),
    placeholderData: keepPreviousData,
  }).data?.rows;
  const people = useQuery({ ...peopleQuery, enabled: input === 'person' }).data;
  const options: ChipOption[] =
    input === 'record'
      ? (records ?? []).map(({ id, title }) => ({ value: fixed(id), label: `No. ${id}`, note: title }))
      : input !== 'person'
        ? []
        : (people ?? []).map(({ userName, displayName }) => ({ value: fixed(userName), label: displayName }));
  return { options, search: setSearch, label: (value: string) => options.find((option) => option.value === value)?.label };
}
