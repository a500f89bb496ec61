import { ActionIcon, Button, Switch, Text, TextInput } from '@mantine/core';
import { IconArrowDown, IconArrowUp, IconCopy, IconPlus, IconTextCaption, IconTrash } from '@tabler/icons-react';
import { useRef, type ReactNode } from 'react';
import type { Case, Condition, ConditionClause, Effect, Problem, Revision, Rule } from '../../api/generated';
import { usePeople } from '../../api/people';
import { when } from '../../writing/when';
import type { DraftProgram } from '../../engine/draftProgram';
import type { OpenRecord } from '../../engine/openRecord';
import { tabOf } from '../../sheet/Sheet';
import { groupsOf } from '../list/rows';
import { TableEditor } from '../table/TableEditor';
import {
  allTargets,
  beside,
  emptyClause,
  isConvenience,
  isOnlyWhile,
  onlyWhile,
  opposite,
  replaced,
  sameElement,
  without,
  withCase,
} from './compose';
import { Chip } from './Chip';
import { comparandLabel } from './comparands';
import { ConditionEditor } from './ConditionEditor';
import { offerOf } from './offers';
import { useSurroundings } from './draftContext';
import { EffectEditor, type Idle } from './EffectEditor';
import { InForceCount } from './InForceCount';
import classes from './OpenRule.module.css';
import { idleness } from './resting';
import { ScopeChip } from './ScopeChip';
import { useClauses } from './useClauses';
import { useVocabulary } from './useVocabulary';
import { withEffect } from './verbs';
import { useSentenceWalk, useWalk, WalkContext } from './walk';
import { useWriting, WritingContext } from './writing';

interface Props {
  rule: Rule;
  place: number;
  /** Those of this rule, with places within it. */
  problems: Problem[];
  program: DraftProgram;
  record: OpenRecord;
  caseInForce: number;
  /** Who changed it last; undefined where it is as it came. */
  lastChange: Revision | undefined;
  onChange: (rule: Rule) => void;
  onMove: (by: number) => void;
  onDuplicate: () => void;
  onDelete: () => void;
  /** Told that the rule's last blank was filled in by a key. */
  onEnd: () => void;
}

/** A rule opened in place: its name, its reason, and its sentence with every blank to be pressed. */
export function OpenRule({
  rule,
  place,
  problems,
  program,
  record,
  caseInForce,
  lastChange,
  onChange,
  onMove,
  onDuplicate,
  onDelete,
  onEnd,
}: Props) {
  const clauses = useClauses(record, rule, place);
  const vocabulary = useVocabulary(program);
  const { tab, rules, writeAsText, isBegun, version } = useSurroundings();
  const sentence = useRef<HTMLDivElement>(null);
  const walk = useSentenceWalk(sentence, vocabulary !== undefined && isBegun(rule.key), onEnd);
  const nameOf = usePeople();
  const { type } = record;
  const own = allTargets(rule);
  return (
    <div className={classes.open} ref={sentence}>
      <div className={classes.titleLine}>
        <TextInput
          className={classes.name}
          variant="unstyled"
          aria-label="Name of the rule"
          placeholder="It will be called by what it does"
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
          <Tool label="Write the rule as text" icon={<IconTextCaption size={15} />} onPress={() => writeAsText(rule.key)} />
          <Tool label="Move the rule up" icon={<IconArrowUp size={15} />} onPress={() => onMove(-1)} />
          <Tool label="Move the rule down" icon={<IconArrowDown size={15} />} onPress={() => onMove(1)} />
          <Tool label="Duplicate the rule" icon={<IconCopy size={15} />} onPress={onDuplicate} />
          <Tool label="Delete the rule" icon={<IconTrash size={15} />} onPress={onDelete} isGrave />
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
      {vocabulary && (
        <WritingContext
          value={{
            type,
            vocabulary,
            record,
            problems,
            truths: new Map(clauses.map((clause) => [clause.place, clause])),
            likely: (element) =>
              record.trial.has(element.key) ||
              own.some((target) => sameElement(target, element)) ||
              (element.kind === 'field' && tab !== '' && tabOf({ recordType: type }, 'field', element.key) === tab),
          }}
        >
          <div className={classes.line}>
            <span className={classes.applies}>Applies</span>
            <ScopeChip where={rule.where} onChange={(where) => onChange({ ...rule, where })} />
            <span className={classes.applies}>in group</span>
            <Chip
              blank="group"
              label={rule.group ?? 'none'}
              placeholder="an existing group, or the name of a new one"
              options={() => [{ value: '', label: 'none' }, ...groupsOf(rules()).map((value) => ({ value, label: value }))]}
              typed={(text) => [{ value: text.trim(), label: text.trim(), note: 'new group' }]}
              onPick={(group) => onChange({ ...rule, group: group || null })}
            />
          </div>
          {isConvenience(rule) && (
            <Text size="xs" c="dimmed" role="note">
              Limited so, this helps people where it applies and protects nothing: the same record can be reached by another way.
              To protect it, delete the limit, or lock the record.
            </Text>
          )}
          {rule.table ? (
            <TableEditor table={rule.table} rowInForce={caseInForce} onChange={(table) => onChange({ ...rule, table })} />
          ) : (
            <WalkContext value={walk}>
              <Cases rule={rule} caseInForce={caseInForce} onChange={onChange} />
            </WalkContext>
          )}
        </WritingContext>
      )}
      <InForceCount recordType={type.key} rule={rule.key} version={version} />
      {lastChange && (
        <Text size="xs" c="dimmed">
          Last changed by {nameOf(lastChange.by)}, {when(lastChange.at)}
        </Text>
      )}
    </div>
  );
}

function Tool({
  label,
  icon,
  onPress,
  isGrave = false,
}: {
  label: string;
  icon: ReactNode;
  onPress: () => void;
  isGrave?: boolean;
}) {
  return (
    <ActionIcon
      variant="subtle"
      size="md"
      color={isGrave ? 'redPencil' : undefined}
      aria-label={label}
      title={label}
      onClick={onPress}
    >
      {icon}
    </ActionIcon>
  );
}

function Cases({ rule, caseInForce, onChange }: { rule: Rule; caseInForce: number; onChange: (rule: Rule) => void }) {
  const cases = rule.cases ?? [];
  const walk = useWalk();
  const hasOtherwise = cases.at(-1)?.while == null;
  const isOnly = isOnlyWhile(rule);
  const change = (i: number, next: Case) => onChange(withCase(rule, i, next));
  const drawn = isOnly ? cases.slice(0, 1) : cases;

  function add(condition: Case['while']) {
    const added: Case = { while: condition, effects: [{ kind: 'show', targets: [] }] };
    const before = isOnly ? cases.slice(0, 1) : cases;
    onChange({
      ...rule,
      cases: hasOtherwise && !isOnly ? [...before.slice(0, -1), added, before.at(-1)!] : [...before, added],
    });
    walk.toMissing();
  }

  return (
    <>
      {drawn.map((aCase, i) => (
        <div key={i} className={classes.case} data-in-force={caseInForce === i || undefined}>
          <div className={classes.line}>
            <span className={classes.keyword}>
              {aCase.while == null ? (i === 0 ? 'Always' : 'Otherwise') : i === 0 ? 'While' : 'Else while'}
            </span>
            {caseInForce === i && <span className={classes.inForce}>in force</span>}
            {drawn.length > 1 && (
              <>
                {i > 0 && aCase.while != null && (
                  <Button
                    size="compact-xs"
                    variant="subtle"
                    onClick={() => onChange({ ...rule, cases: replaced(replaced(cases, i, cases[i - 1]!), i - 1, aCase) })}
                  >
                    earlier
                  </Button>
                )}
                <Button size="compact-xs" variant="subtle" onClick={() => onChange({ ...rule, cases: without(cases, i) })}>
                  delete this case
                </Button>
              </>
            )}
          </div>
          {aCase.while != null && (
            <div className={classes.indented}>
              <ConditionEditor
                condition={aCase.while}
                place={`/cases/${i}/while`}
                onChange={(next) => change(i, { ...aCase, while: next })}
              />
              {aCase.while.kind === 'clause' && (
                <Button
                  size="compact-xs"
                  variant="subtle"
                  leftSection={<IconPlus size={12} />}
                  onClick={() => (change(i, { ...aCase, while: beside(aCase.while!, emptyClause()) }), walk.toMissing())}
                >
                  clause
                </Button>
              )}
            </div>
          )}
          {i === 0 && (
            <LikelyClauses rule={rule} onAdd={(clause) => change(0, { ...aCase, while: withClause(aCase.while, clause) })} />
          )}
          <Effects rule={rule} at={i} isOnly={isOnly} onChange={onChange} />
        </div>
      ))}
      <Button.Group>
        <Button size="compact-xs" variant="subtle" leftSection={<IconPlus size={12} />} onClick={() => add(emptyClause())}>
          else while
        </Button>
        {(!hasOtherwise || isOnly) && (
          <Button size="compact-xs" variant="subtle" leftSection={<IconPlus size={12} />} onClick={() => add(null)}>
            otherwise
          </Button>
        )}
      </Button.Group>
    </>
  );
}

/** Clauses that were perhaps meant as well, one press away; only where the rule was proposed. */
function LikelyClauses({ rule, onAdd }: { rule: Rule; onAdd: (clause: ConditionClause) => void }) {
  const { likelyClauses } = useSurroundings();
  const writing = useWriting();
  const likely = likelyClauses(rule);
  return likely.length === 0 ? null : (
    <div className={`${classes.line} ${classes.indented}`}>
      <span className={classes.applies}>perhaps also</span>
      {likely.map((clause) => {
        const offer = offerOf(writing, clause.subject);
        return (
          offer && (
            <Button key={JSON.stringify(clause)} size="compact-xs" variant="default" onClick={() => onAdd(clause)}>
              {offer.label} {offer.tests.find(({ test }) => test === clause.test)?.words}{' '}
              {(clause.comparands ?? []).map((comparand) => comparandLabel(writing, offer, comparand)).join(', ')}
            </Button>
          )
        );
      })}
    </div>
  );
}

const isBlank = (condition: Condition | null | undefined) =>
  condition == null || (condition.kind === 'clause' && condition.subject.kind === 'field' && condition.subject.field === '');

const withClause = (condition: Condition | null | undefined, clause: ConditionClause): Condition =>
  isBlank(condition) ? clause : beside(condition!, clause);

/** What a case does. */
function Effects({ rule, at, isOnly, onChange }: { rule: Rule; at: number; isOnly: boolean; onChange: (rule: Rule) => void }) {
  const { rules, changeRest } = useSurroundings();
  const walk = useWalk();
  const { type } = useWriting();
  const cases = rule.cases ?? [];
  const aCase = cases[at]!;
  const { effects } = aCase;
  const canBeOnly = at === 0 && aCase.while != null && (cases.length === 1 || isOnly);
  const change = (next: Effect[]) => onChange(withCase(rule, at, { ...aCase, effects: next }));

  function idleOf(effect: Effect): Idle | undefined {
    const idle =
      canBeOnly && !isOnly
        ? idleness(
            type,
            effect,
            rules().filter(({ key }) => key !== rule.key),
          )
        : undefined;
    return (
      idle && {
        what: idle.what,
        onOnlyWhile: () => onChange(onlyWhile(rule, true)),
        onRest: () => 'targets' in effect && effect.targets.forEach((target) => changeRest(target, idle.rest)),
      }
    );
  }

  return (
    <div className={classes.indented}>
      {effects.map((effect, e) => (
        <EffectEditor
          key={e}
          effect={effect}
          place={`/cases/${at}/effects/${e}`}
          isOnly={canBeOnly && opposite(effect) ? isOnly : undefined}
          onOnly={(next) => onChange(onlyWhile(rule, next))}
          idle={idleOf(effect)}
          onChange={(...next) => change(withEffect(effects, e, next))}
          onRemove={effects.length > 1 ? () => change(without(effects, e)) : undefined}
        />
      ))}
      <Button
        size="compact-xs"
        variant="subtle"
        leftSection={<IconPlus size={12} />}
        onClick={() => (change([...effects, { kind: 'show', targets: [] }]), walk.toMissing())}
      >
        effect
      </Button>
    </div>
  );
}
