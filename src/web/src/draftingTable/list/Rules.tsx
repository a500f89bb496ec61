import { Button, Text } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useCallback, useEffect, useMemo, useRef, useState, type KeyboardEvent, type RefObject } from 'react';
import { usePeople } from '../../api/people';
import type { Definition, DraftView, Problem, Rule, Vocabulary } from '../../api/generated';
import type { DraftProgram } from '../../engine/draftProgram';
import type { OpenRecord } from '../../engine/openRecord';
import { useFromRecord, useSummary } from '../../engine/useRecord';
import { useComparison } from '../draft/useComparison';
import { packOf, sentencesOf } from './exchange';
import { FilterBar } from './FilterBar';
import { plainText } from './plainText';
import { RuleList } from './RuleList';
import type { RuleActions } from './RuleRow';
import classes from './Rules.module.css';
import { everything, isNarrowed, matches, type RuleFilter } from './ruleFilter';
import { groupsOf, rowsOf } from './rows';
import { TickedBar } from './TickedBar';
import { useSentences } from './useSentences';
import { useTicked } from './useTicked';

interface Props {
  definition: Definition;
  /** What the draft is compared with to tell which rules it changes. */
  edition: number | null;
  version: number;
  revisions: DraftView['revisions'];
  problems: Map<number, Problem[]>;
  program: DraftProgram;
  record: OpenRecord;
  vocabulary: Vocabulary | undefined;
  chosen: string | undefined;
  actions: RuleActions;
  /** Where the last change of their order matters, a sentence each. */
  orderNotes: string[];
  onOrderRead: () => void;
  findInput: RefObject<HTMLInputElement | null>;
  onRuleKey: (event: KeyboardEvent<HTMLElement>, rule: string) => void;
}

const none: Rule[] = [];

/** How long sentences wait for the sheet, in milliseconds. */
const patience = 4000;

/** The list of rules with all that finds, groups and handles many of them. */
export function Rules(props: Props) {
  const { definition, problems, program, record, vocabulary, chosen, actions, revisions } = props;
  const { rules, recordType: type } = definition;
  const [filter, setFilter] = useState<RuleFilter>(everything);
  const [folded, setFolded] = useState<Set<string>>(() => new Set());
  const nameOf = usePeople();
  const changes = useComparison(type.key, props.edition, props.version, filter.isChanged);
  const inForce = useFromRecord(record, () =>
    filter.isInForce ? rules.map((_, place) => (record.caseInForce(place) >= 0 ? place : '')).join(' ') : '',
  );
  // The live sheet comes first; where it does not come, the sentences need not wait for it.
  const { isLive } = useSummary(record);
  const [isLate, setLate] = useState(false);
  useEffect(() => {
    const timer = window.setTimeout(() => setLate(true), patience);
    return () => window.clearTimeout(timer);
  }, []);
  const isAwaited = isLive || isLate;
  // Words are looked for in all of them, also in those that nobody has looked at yet.
  const sentenceOf = useSentences(program, filter.words.trim() ? rules : none, isAwaited);

  const isFiltered = isNarrowed(filter);
  const inForceNow = new Set(inForce.split(' '));
  const changed = new Set((changes ?? []).filter(({ what }) => what === 'rule').map(({ key }) => key));
  const rows = rowsOf(
    rules,
    (rule, place) =>
      // The rule that is open stays, whatever is looked for: it is being written.
      !isFiltered ||
      rule.key === chosen ||
      matches(rule, place, filter, {
        problems,
        sentence: (one) => plainText(sentenceOf(one) ?? []),
        isInForce: (at) => inForceNow.has(String(at)),
        isChanged: (one) => changed.has(one.key),
        changedBy: (one) => revisions[one.key]?.by,
      }),
    folded,
  );
  const order = useRef<string[]>([]);
  useEffect(() => {
    order.current = rows.flatMap((row) => (row.kind === 'rule' ? [row.rule.key] : []));
  });
  const ticked = useTicked(useCallback(() => order.current, []));
  const tickedRules = rules.filter(({ key }) => ticked.keys.has(key));
  const tickedKeys = tickedRules.map(({ key }) => key);
  const stages = useMemo(
    () => [...new Map(type.workflows.flatMap((workflow) => workflow.stages).map((stage) => [stage.key, stage])).values()],
    [type],
  );
  const people = [...new Set(Object.values(revisions).map(({ by }) => by))].map((value) => ({ value, label: nameOf(value) }));

  async function copy(as: 'sentences' | 'pack') {
    const text = as === 'pack' ? packOf(type, tickedRules) : await sentencesOf(program, tickedRules);
    await navigator.clipboard.writeText(text);
    notifications.show({
      message: `Copied ${tickedRules.length === 1 ? '1 rule' : `${tickedRules.length} rules`} as ${as === 'pack' ? 'a pack' : 'sentences'}.`,
      autoClose: 4000,
    });
  }

  return (
    <>
      <FilterBar
        filter={filter}
        vocabulary={vocabulary}
        stages={stages}
        people={people}
        found={isFiltered ? rows.filter(({ kind }) => kind === 'rule').length : undefined}
        input={props.findInput}
        onChange={setFilter}
      />
      {tickedRules.length > 0 && (
        <TickedBar
          count={tickedRules.length}
          groups={groupsOf(rules)}
          onSwitch={(on) => actions.switch(tickedKeys, on)}
          onMove={(to) => actions.moveTo(tickedKeys, to)}
          onGroup={(group) => actions.group(tickedKeys, group)}
          onDuplicate={() => actions.duplicate(tickedKeys)}
          onCopy={(as) => void copy(as)}
          onDelete={() => {
            actions.remove(tickedKeys);
            ticked.set([]);
          }}
          onLeave={() => ticked.set([])}
        />
      )}
      {props.orderNotes.length > 0 && (
        <div className={classes.order} role="status">
          {props.orderNotes.map((note) => (
            <Text key={note} size="sm">
              {note}
            </Text>
          ))}
          <Button size="compact-xs" variant="subtle" onClick={props.onOrderRead}>
            That is meant
          </Button>
        </div>
      )}
      {rows.length === 0 && (
        <Text className={classes.empty} c="dimmed" size="sm">
          {isFiltered
            ? 'No rule is like that.'
            : 'There is no rule yet. Say one in the line above, begin one with “New rule”, or press an element on the sheet.'}
        </Text>
      )}
      <RuleList
        rows={rows}
        problems={problems}
        program={program}
        record={record}
        chosen={chosen}
        ticked={ticked}
        actions={actions}
        revisions={revisions}
        isAwaited={isAwaited}
        onRuleKey={props.onRuleKey}
        onFold={(group) =>
          setFolded((before) => {
            const next = new Set(before);
            if (!next.delete(group)) {
              next.add(group);
            }
            return next;
          })
        }
      />
    </>
  );
}
