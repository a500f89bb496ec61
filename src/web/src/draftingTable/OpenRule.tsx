import { ActionIcon, Button, Switch, Text, TextInput } from '@mantine/core';
import { IconArrowDown, IconArrowUp, IconCopy, IconPlus, IconTrash } from '@tabler/icons-react';
import type { Case, Effect, Problem, Rule } from '../api/generated';
import type { DraftProgram } from '../engine/draftProgram';
import type { OpenRecord } from '../engine/openRecord';
import { beside, emptyClause, hasChips, isConvenience, isStateEffect, replaced, without } from './compose';
import { ConditionEditor } from './ConditionEditor';
import { EffectEditor } from './EffectEditor';
import classes from './OpenRule.module.css';
import { Problems } from './Problems';
import { SentenceEditor } from './SentenceEditor';
import { useClauses } from './useClauses';
import { useVocabulary } from './useVocabulary';

interface Props {
  rule: Rule;
  place: number;
  /** Those of this rule, with places within it. */
  problems: Problem[];
  program: DraftProgram;
  record: OpenRecord;
  /** Undefined until it has been written. */
  sentence: string | undefined;
  caseInForce: number;
  onChange: (rule: Rule) => void;
  onMove: (by: number) => void;
  onDuplicate: () => void;
  onDelete: () => void;
}

/** A rule opened in place: its name, its reason, and its sentence with every blank to be pressed. */
export function OpenRule({
  rule,
  place,
  problems,
  program,
  record,
  sentence,
  caseInForce,
  onChange,
  onMove,
  onDuplicate,
  onDelete,
}: Props) {
  const clauses = useClauses(record, rule, place);
  const vocabulary = useVocabulary(program);
  const truths = new Map(clauses.map((clause) => [clause.place, clause]));
  const cases = rule.cases ?? [];
  const isSentence = !hasChips(rule);
  const hasOtherwise = cases.at(-1)?.while == null;
  const changeCase = (i: number, next: Case) => onChange({ ...rule, cases: replaced(cases, i, next) });

  function addCase(condition: Case['while']) {
    const added: Case = { while: condition, effects: [{ kind: 'show', targets: [] }] };
    onChange({ ...rule, cases: hasOtherwise ? [...cases.slice(0, -1), added, cases.at(-1)!] : [...cases, added] });
  }

  return (
    <div className={classes.open}>
      <div className={classes.titleLine}>
        <TextInput
          className={classes.name}
          variant="unstyled"
          aria-label="Name of the rule"
          value={rule.name}
          onChange={(event) => onChange({ ...rule, name: event.currentTarget.value })}
        />
        <Switch
          size="xs"
          label="on"
          checked={rule.on ?? true}
          onChange={(event) => onChange({ ...rule, on: event.currentTarget.checked })}
        />
        <ActionIcon.Group>
          <ActionIcon variant="subtle" size="sm" aria-label="Move the rule up" onClick={() => onMove(-1)}>
            <IconArrowUp size={15} />
          </ActionIcon>
          <ActionIcon variant="subtle" size="sm" aria-label="Move the rule down" onClick={() => onMove(1)}>
            <IconArrowDown size={15} />
          </ActionIcon>
          <ActionIcon variant="subtle" size="sm" aria-label="Duplicate the rule" onClick={onDuplicate}>
            <IconCopy size={15} />
          </ActionIcon>
          <ActionIcon variant="subtle" size="sm" color="redPencil" aria-label="Delete the rule" onClick={onDelete}>
            <IconTrash size={15} />
          </ActionIcon>
        </ActionIcon.Group>
      </div>
      <TextInput
        variant="unstyled"
        aria-label="Reason for the rule"
        placeholder="What is it for, and who asked?"
        classNames={{ input: classes.reason }}
        value={rule.reason ?? ''}
        onChange={(event) => onChange({ ...rule, reason: event.currentTarget.value || null })}
      />
      <Problems problems={problems} place="/name" />
      {isConvenience(rule) && (
        <Text size="xs" c="dimmed" role="note">
          Limited so, this helps people where it applies and protects nothing: the same record can be reached by another way. To
          protect it, take the limit away, or lock the record.
        </Text>
      )}
      {isSentence && sentence !== undefined && (
        <SentenceEditor
          rule={rule}
          sentence={sentence}
          program={program}
          problems={problems}
          clauses={clauses}
          onChange={onChange}
        />
      )}
      {vocabulary &&
        (isSentence ? [] : cases).map((aCase, i) => (
          <div key={i} className={classes.case} data-in-force={caseInForce === i || undefined}>
            <div className={classes.line}>
              <span className={classes.keyword}>
                {aCase.while == null ? (i === 0 ? 'Always' : 'Otherwise') : i === 0 ? 'While' : 'Else while'}
              </span>
              {caseInForce === i && <span className={classes.inForce}>in force</span>}
              {cases.length > 1 && (
                <Button size="compact-xs" variant="subtle" onClick={() => onChange({ ...rule, cases: without(cases, i) })}>
                  take this case away
                </Button>
              )}
            </div>
            {aCase.while != null && (
              <div className={classes.indented}>
                <ConditionEditor
                  condition={aCase.while}
                  place={`/cases/${i}/while`}
                  vocabulary={vocabulary}
                  problems={problems}
                  truths={truths}
                  onChange={(next) => changeCase(i, { ...aCase, while: next })}
                />
                {aCase.while.kind === 'clause' && (
                  <Button
                    size="compact-xs"
                    variant="subtle"
                    leftSection={<IconPlus size={12} />}
                    onClick={() => changeCase(i, { ...aCase, while: beside(aCase.while!, emptyClause()) })}
                  >
                    clause
                  </Button>
                )}
              </div>
            )}
            <div className={classes.indented}>
              {aCase.effects.filter(isStateEffect).map((effect, e) => (
                <EffectEditor
                  key={e}
                  effect={effect}
                  place={`/cases/${i}/effects/${e}`}
                  vocabulary={vocabulary}
                  problems={problems}
                  onChange={(next) => changeCase(i, { ...aCase, effects: replaced(aCase.effects, e, next) })}
                  onRemove={
                    aCase.effects.length > 1 ? () => changeCase(i, { ...aCase, effects: without(aCase.effects, e) }) : undefined
                  }
                />
              ))}
              <Button
                size="compact-xs"
                variant="subtle"
                leftSection={<IconPlus size={12} />}
                onClick={() => changeCase(i, { ...aCase, effects: [...aCase.effects, another()] })}
              >
                effect
              </Button>
            </div>
          </div>
        ))}
      {!isSentence && (
        <Button.Group>
          <Button size="compact-xs" variant="subtle" leftSection={<IconPlus size={12} />} onClick={() => addCase(emptyClause())}>
            else while
          </Button>
          {!hasOtherwise && (
            <Button size="compact-xs" variant="subtle" leftSection={<IconPlus size={12} />} onClick={() => addCase(null)}>
              otherwise
            </Button>
          )}
        </Button.Group>
      )}
    </div>
  );
}

const another = (): Effect => ({ kind: 'show', targets: [] });
