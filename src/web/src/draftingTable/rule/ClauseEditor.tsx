import { ActionIcon } from '@mantine/core';
import { IconX } from '@tabler/icons-react';
import type { ConditionClause, Subject } from '../../api/generated';
import { Chip } from './Chip';
import { clauseMends } from './mends';
import { offerOf, subjectOptions } from './offers';
import classes from './OpenRule.module.css';
import { Problems } from './Problems';
import { TestBlanks } from './TestBlanks';
import { useWriting } from './writing';

interface Props {
  clause: ConditionClause;
  place: string;
  onChange: (clause: ConditionClause) => void;
  onRemove?: () => void;
}

const isBlank = ({ subject }: ConditionClause) => subject.kind === 'field' && subject.field === '';

/** One clause as chips, with the sample's present value and whether the clause holds for it. */
export function ClauseEditor({ clause, place, onChange, onRemove }: Props) {
  const writing = useWriting();
  const { problems, truths } = writing;
  const offer = offerOf(writing, clause.subject);
  const comparands = clause.comparands ?? [];
  const wrong = (part: string) => problems.some((p) => p.place.startsWith(`${place}/${part}`));
  const truth = truths.get(place);

  function pickSubject(value: string) {
    const subject = JSON.parse(value) as Subject;
    const next = offerOf(writing, subject)!;
    const keepsTest = next.tests.some((t) => t.test === clause.test);
    const keepsValues = next.input === offer?.input && next.input !== 'list';
    onChange({
      ...clause,
      subject,
      test: keepsTest ? clause.test : next.tests[0]!.test,
      comparands: keepsValues && keepsTest ? comparands : [],
    });
  }

  const isAsked = offer?.tests.some(({ test, shape }) => test === clause.test && shape === 'alone') || comparands.length > 0;
  return (
    <div className={classes.clause} data-place={place}>
      <div className={classes.line}>
        <Chip
          blank="subject"
          label={offer?.label ?? 'choose what to look at'}
          isMissing={!offer}
          isWrong={!isBlank(clause) && wrong('subject')}
          current={offer && JSON.stringify(clause.subject)}
          options={() => subjectOptions(writing)}
          onPick={pickSubject}
        />
        {offer && (
          <TestBlanks
            key={JSON.stringify(clause.subject)}
            offer={offer}
            test={clause.test}
            comparands={comparands}
            isWrong={wrong}
            onChange={(next) => onChange({ ...clause, ...next })}
          />
        )}
        {onRemove && (
          <ActionIcon variant="subtle" size="sm" aria-label="Delete the clause" onClick={onRemove}>
            <IconX size={13} />
          </ActionIcon>
        )}
      </div>
      {truth && (
        <span className={classes.truth} data-holds={truth.holds}>
          now {truth.present} · {truth.holds ? 'holds' : 'does not hold'}
        </span>
      )}
      {!isBlank(clause) && isAsked && (
        <Problems
          problems={problems}
          place={place}
          mendsOf={(problem) => clauseMends(clause, place, problem, writing, onChange, onRemove)}
        />
      )}
    </div>
  );
}
