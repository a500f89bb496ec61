import { memo } from 'react';
import type { Problem, Rule, SentencePart } from '../../api/generated';
import type { DraftProgram } from '../../engine/draftProgram';
import type { OpenRecord } from '../../engine/openRecord';
import { useCase } from '../../engine/useRecord';
import { Balloon } from '../../sheet/Balloon';
import lines from '../../sheet/lines.module.css';
import { OpenRule } from '../rule/OpenRule';
import classes from './RuleList.module.css';
import { SentenceText } from './SentenceText';

/** What can be done to a rule by its place. The same functions at every drawing. */
export interface RuleActions {
  choose: (key: string | undefined) => void;
  change: (next: Rule) => void;
  move: (key: string, by: number) => void;
  duplicate: (key: string) => void;
  remove: (key: string) => void;
}

interface Props {
  rule: Rule;
  place: number;
  /** Those of this rule, with places within it. */
  problems: Problem[];
  /** Undefined until it has been written. */
  sentence: SentencePart[] | undefined;
  isOpen: boolean;
  program: DraftProgram;
  record: OpenRecord;
  actions: RuleActions;
}

/** One rule as its sentence, or opened in place. */
export const RuleRow = memo(function RuleRow({ rule, place, problems, sentence, isOpen, program, record, actions }: Props) {
  const caseInForce = useCase(record, place);
  const isInForce = caseInForce >= 0;
  return (
    <div
      className={classes.rule}
      data-rule={rule.key}
      data-open={isOpen || undefined}
      data-in-force={isInForce || undefined}
      data-off={rule.on === false || undefined}
    >
      <div className={classes.margin}>
        <Balloon
          number={place + 1}
          isInForce={isInForce}
          label={isOpen ? `Close rule ${place + 1}` : `Open rule ${place + 1}, ${rule.name}`}
          onPress={() => actions.choose(isOpen ? undefined : rule.key)}
        />
      </div>
      {isOpen ? (
        <OpenRule
          rule={rule}
          place={place}
          problems={problems}
          program={program}
          record={record}
          caseInForce={caseInForce}
          onChange={actions.change}
          onMove={(by) => actions.move(rule.key, by)}
          onDuplicate={() => actions.duplicate(rule.key)}
          onDelete={() => actions.remove(rule.key)}
        />
      ) : (
        <button type="button" className={classes.closed} onClick={() => actions.choose(rule.key)}>
          <span className={classes.name}>
            {rule.name}
            <span className={lines.word}>{rule.on === false ? 'off' : isInForce ? 'in force' : ''}</span>
          </span>
          <SentenceText parts={sentence ?? []} />
          {problems.length > 0 && <span className={lines.wrong}>{problems[0]!.what}</span>}
        </button>
      )}
    </div>
  );
});
