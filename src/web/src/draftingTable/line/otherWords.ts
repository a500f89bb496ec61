import type { OtherWord, RecordType } from '../../api/generated';

/** What may have other words, with a word for it that says nothing yet. */
export interface Nameable {
  kind: 'Fields' | 'Choices' | 'Stages' | 'Roles';
  label: string;
  meant: OtherWord;
}

/** Everything of a record type that may have other words: fields, choices, stages, roles. */
export function nameables({ fields, workflows, roles = [] }: RecordType): Nameable[] {
  const named = fields.filter(({ retired }) => !retired);
  const stages = new Map(workflows.flatMap((workflow) => workflow.stages).map(({ key, label }) => [key, label]));
  const of = (kind: Nameable['kind'], label: string, meant: Omit<OtherWord, 'said'>) => ({
    kind,
    label,
    meant: { said: '', ...meant },
  });
  return [
    ...named.map(({ key, label }) => of('Fields', label, { field: key })),
    ...named.flatMap(({ key, label, type }) =>
      type.kind === 'choice' || type.kind === 'choices'
        ? type.options
            .filter(({ retired }) => !retired)
            .map((option) => of('Choices', `${label}: ${option.label}`, { field: key, choice: option.key }))
        : [],
    ),
    ...[...stages].map(([key, label]) => of('Stages', label, { stage: key })),
    ...roles.map(({ key, label }) => of('Roles', label, { role: key })),
  ];
}

/** Tells apart what other words stand for, whatever the words are. */
export const meaningOf = ({ field, choice, stage, role }: OtherWord) =>
  [field, choice, stage, role].map((key) => key ?? '').join('/');

/** What a word stands for, as people read it; undefined where that is no more. */
export const meantBy = (type: RecordType, word: OtherWord): string | undefined =>
  nameables(type).find(({ meant }) => meaningOf(meant) === meaningOf(word))?.label;

const isSame = (one: OtherWord, other: OtherWord) =>
  meaningOf(one) === meaningOf(other) && one.said.toLowerCase() === other.said.toLowerCase();

/** Whether the record type knows that word for the same thing. */
export const isKnown = (type: RecordType, word: OtherWord) => (type.otherWords ?? []).some((one) => isSame(one, word));

/** The record type with one word more; the same where it knows that word. */
export const withWord = (type: RecordType, word: OtherWord): RecordType =>
  isKnown(type, word) ? type : { ...type, otherWords: [...(type.otherWords ?? []), word] };

/** The record type without that word. */
export const withoutWord = (type: RecordType, word: OtherWord): RecordType => ({
  ...type,
  otherWords: type.otherWords?.filter((one) => !isSame(one, word)),
});

/** The record type without words for what is no more; the same where there are none. A retired field or choice keeps its words. */
export function withoutLostWords(type: RecordType): RecordType {
  const { fields, workflows, roles = [], otherWords = [] } = type;
  const isThere = ({ field, choice, stage, role }: OtherWord) => {
    const its = fields.find(({ key }) => key === field)?.type;
    return stage
      ? workflows.some(({ stages }) => stages.some(({ key }) => key === stage))
      : role
        ? roles.some(({ key }) => key === role)
        : its !== undefined && (!choice || ('options' in its && its.options.some(({ key }) => key === choice)));
  };
  return otherWords.every(isThere) ? type : { ...type, otherWords: otherWords.filter(isThere) };
}
