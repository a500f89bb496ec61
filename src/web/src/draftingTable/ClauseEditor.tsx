import { ActionIcon } from '@mantine/core';
import { IconX } from '@tabler/icons-react';
import type { ClauseExplanation, Comparand, ConditionClause, Problem, SubjectOffer, Vocabulary } from '../api/generated';
import { Chip, type ChipOption } from './Chip';
import { fitComparands, replaced, sameSubject, without } from './compose';
import classes from './OpenRule.module.css';
import { Problems } from './Problems';

interface Props {
  clause: ConditionClause;
  place: string;
  vocabulary: Vocabulary;
  problems: Problem[];
  /** By place within the rule. */
  truths: Map<string, ClauseExplanation>;
  onChange: (clause: ConditionClause) => void;
  onRemove?: () => void;
}

/** One clause as chips, with the sample's present value and whether the clause holds for it. */
export function ClauseEditor({ clause, place, vocabulary, problems, truths, onChange, onRemove }: Props) {
  const offer = vocabulary.subjects.find((s) => sameSubject(s.subject, clause.subject));
  const test = offer?.tests.find((t) => t.test === clause.test);
  const comparands = clause.comparands ?? [];
  const wrong = (part: string) => problems.some((p) => p.place.startsWith(`${place}/${part}`));
  const truth = truths.get(place);

  function pickSubject(index: string) {
    const next = vocabulary.subjects[Number(index)]!;
    const keepsTest = next.tests.some((t) => t.test === clause.test);
    const keepsValues = next.input === offer?.input && next.input !== 'list';
    onChange({
      ...clause,
      subject: next.subject,
      test: keepsTest ? clause.test : next.tests[0]!.test,
      comparands: keepsValues && keepsTest ? comparands : [],
    });
  }

  function pickTest(index: string) {
    const next = offer!.tests[Number(index)]!;
    onChange({ ...clause, test: next.test, comparands: fitComparands(comparands, next.shape) });
  }

  const [words, after] = (test?.words ?? 'is').split(' … ');
  const blanks =
    test === undefined || test.shape === 'alone'
      ? 0
      : test.shape === 'range'
        ? 2
        : test.shape === 'many'
          ? comparands.length + 1
          : 1;
  return (
    <div className={classes.clause} data-place={place}>
      <div className={classes.line}>
        <Chip
          blank="subject"
          label={offer?.label ?? 'choose what to look at'}
          isMissing={!offer}
          isWrong={offer !== undefined && wrong('subject')}
          options={vocabulary.subjects.map((s, i) => ({
            value: String(i),
            label: s.label,
            group:
              s.subject.kind === 'field'
                ? 'Fields'
                : s.subject.kind === 'linked'
                  ? 'Linked records'
                  : 'The record and the person',
          }))}
          onPick={pickSubject}
        />
        {offer && (
          <Chip
            blank="test"
            label={words!}
            isWrong={wrong('test')}
            options={offer.tests.map((t, i) => ({ value: String(i), label: t.words }))}
            onPick={pickTest}
          />
        )}
        {offer &&
          Array.from({ length: blanks }, (_, i) => (
            <span key={i} className={classes.line}>
              {i > 0 && <em>{test!.shape === 'range' ? 'and' : 'or'}</em>}
              <Chip
                blank="comparand"
                label={
                  comparands[i]
                    ? labelOf(comparands[i], offer, vocabulary)
                    : test!.shape === 'many' && i > 0
                      ? '+'
                      : 'choose a value'
                }
                isMissing={!comparands[i]}
                isWrong={comparands[i] !== undefined && wrong(`comparands/${i}`)}
                inputType={offer.input === 'date' ? 'date' : offer.input === 'dateTime' ? 'datetime-local' : 'text'}
                options={[
                  ...comparandOptions(offer, vocabulary),
                  ...(comparands[i] && test!.shape === 'many' ? [{ value: 'remove', label: 'Take this away' }] : []),
                ]}
                typed={
                  ['text', 'number', 'date', 'dateTime'].includes(offer.input) ? (text) => typedOption(text, offer) : undefined
                }
                onPick={(value) =>
                  onChange({
                    ...clause,
                    comparands:
                      value === 'remove'
                        ? without(comparands, i)
                        : i < comparands.length
                          ? replaced(comparands, i, JSON.parse(value) as Comparand)
                          : [...comparands, JSON.parse(value) as Comparand],
                  })
                }
              />
            </span>
          ))}
        {after && <em>{after}</em>}
        {onRemove && (
          <ActionIcon variant="subtle" size="xs" aria-label="Take the clause away" onClick={onRemove}>
            <IconX size={13} />
          </ActionIcon>
        )}
      </div>
      {truth && (
        <span className={classes.truth} data-holds={truth.holds}>
          now {truth.present} · {truth.holds ? 'holds' : 'does not hold'}
        </span>
      )}
      <Problems problems={problems} place={place} />
    </div>
  );
}

function comparandOptions(offer: SubjectOffer, vocabulary: Vocabulary): ChipOption[] {
  const literals =
    offer.input === 'yesNo'
      ? [
          { value: literal(true), label: 'yes' },
          { value: literal(false), label: 'no' },
        ]
      : offer.values.map((v) => ({ value: literal(v.key), label: v.label }));
  const fields = offer.fields.map((field) => ({
    value: JSON.stringify({ kind: 'subject', subject: { kind: 'field', field } }),
    label: fieldLabel(field, vocabulary),
    group: 'The value of another field',
  }));
  return [...literals, ...fields];
}

function typedOption(text: string, offer: SubjectOffer): ChipOption | null {
  if (offer.input !== 'number') {
    return { value: literal(text), label: offer.input === 'text' ? `“${text}”` : text };
  }
  const number = Number(text.replaceAll(/[,\s]/g, ''));
  return Number.isFinite(number) ? { value: literal(number), label: number.toLocaleString('en') } : null;
}

function labelOf(comparand: Comparand, offer: SubjectOffer, vocabulary: Vocabulary): string {
  if (comparand.kind === 'subject') {
    return vocabulary.subjects.find((s) => sameSubject(s.subject, comparand.subject))?.label ?? '…';
  }
  const value = comparand.kind === 'literal' ? comparand.value : null;
  return typeof value === 'boolean'
    ? value
      ? 'yes'
      : 'no'
    : typeof value === 'number'
      ? value.toLocaleString('en')
      : (offer.values.find((v) => v.key === value)?.label ?? (offer.input === 'text' ? `“${value}”` : String(value)));
}

const literal = (value: string | number | boolean) => JSON.stringify({ kind: 'literal', value });

const fieldLabel = (key: string, vocabulary: Vocabulary) =>
  vocabulary.subjects.find((s) => s.subject.kind === 'field' && s.subject.field === key)?.label ?? key;
