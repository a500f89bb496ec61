import { ActionIcon, Button, Group, Switch, Text, Tooltip } from '@mantine/core';
import { useHotkeys } from '@mantine/hooks';
import { IconArrowBackUp, IconArrowForwardUp, IconPlus } from '@tabler/icons-react';
import { useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useLayoutEffect, useRef, useState } from 'react';
import type { DraftView, Effect, ElementKind } from '../api/generated';
import { DraftProgram } from '../engine/draftProgram';
import { engine } from '../engine/pageEngine';
import { useSummary } from '../engine/useRecord';
import type { OpenRecord } from '../engine/openRecord';
import { Place } from '../frame/Place';
import lines from '../sheet/lines.module.css';
import { Sheet, tabOf } from '../sheet/Sheet';
import { allTargets, conditionOf, newRule } from './compose';
import { Demonstrate } from './Demonstrate';
import classes from './DraftSheet.module.css';
import { Publish } from './Publish';
import { RuleBalloons } from './RuleBalloons';
import { RuleList } from './RuleList';
import { TitleBlock, type View } from './TitleBlock';
import { Touching } from './touching';
import { useDraft } from './useDraft';
import { useProblems } from './useProblems';
import { useRuleActions } from './useRuleActions';
import { useSample } from './useSample';

/** Rules to the left, the live sheet to the right, and balloons between them. */
export function DraftSheet({ stored, first }: { stored: DraftView; first: number }) {
  const type = stored.definition.recordType;
  const queries = useQueryClient();
  const draft = useDraft(type.key, stored);
  const { definition } = draft;
  const { rules } = definition;
  const [program] = useState(() => new DraftProgram(engine, stored.definition));
  const [touching] = useState(() => new Touching(rules));
  const [edition, setEdition] = useState(stored.edition);
  const [hasFailed, setFailed] = useState(false);
  const [chosen, setChosen] = useState<string>();
  const [tab, setTab] = useState('');
  const [showHidden, setShowHidden] = useState(true);
  const [view, setView] = useState<View>({
    record: first,
    stage: '',
    role: type.roles?.find((r) => r.key !== 'administrator')?.key ?? '',
    isNew: false,
  });
  const { sample, record } = useSample(type, view, program);
  const problems = useProblems(stored, definition, program, record);
  useHotkeys([
    ['mod+z', () => draft.undo?.()],
    ['mod+shift+z', () => draft.redo?.()],
  ]);
  useEffect(() => touching.take(rules), [touching, rules]);
  useEffect(() => {
    // While the record for the sheet is fetched.
    program.program().catch(() => setFailed(true));
    return () => program.close();
  }, [program]);

  const latest = useRef(rules);
  useLayoutEffect(() => {
    latest.current = rules;
  }, [rules]);
  const choose = useCallback(
    (key: string | undefined) => {
      setChosen(key);
      const rule = latest.current.find((r) => r.key === key);
      const target = rule && allTargets(rule)[0];
      const onTab = target && tabOf({ recordType: type }, target.kind, target.key);
      if (onTab) {
        setTab(onTab);
      }
    },
    [type],
  );
  const { changeRules } = draft;
  const actions = useRuleActions(latest, changeRules, choose, setChosen);

  const add = useCallback(
    (effect?: Effect) => {
      const taken = latest.current;
      const rule = effect ? newRule(taken, effect, conditionOf(record?.trial ?? new Map())) : newRule(taken);
      changeRules([...taken, rule]);
      setChosen(rule.key);
    },
    [changeRules, record],
  );

  // The rule that is open, by what it acts on: while it is written, that is most often the same.
  const open = rules.find((rule) => rule.key === chosen);
  const pointed = open
    ? allTargets(open)
        .map((t) => `${t.kind}:${t.key}`)
        .join(' ')
    : '';
  const isPointedAt = useCallback((kind: ElementKind, key: string) => pointed.split(' ').includes(`${kind}:${key}`), [pointed]);
  const { elements } = touching;
  const depends = useCallback((kind: ElementKind, key: string) => elements.split(' ').includes(`${kind}:${key}`), [elements]);
  const aside = useCallback(
    (kind: ElementKind, key: string) =>
      record && (
        <span className={classes.aside}>
          <RuleBalloons touching={touching} record={record} kind={kind} elementKey={key} chosen={chosen} onChoose={setChosen} />
          {kind !== 'tab' && <Demonstrate element={{ kind, key }} onPropose={add} />}
        </span>
      ),
    [record, touching, chosen, add],
  );
  if (!sample || !record) {
    return null;
  }

  const problemCount = problems.type.length + [...problems.rules.values()].reduce((count, of) => count + of.length, 0);
  return (
    <main className={classes.table}>
      <Live record={record} />
      <Place
        steps={[{ label: 'Record types', to: '/' }, { label: type.label, to: `/types/${type.key}/records` }, { label: 'Rules' }]}
      >
        <Group gap="xs" wrap="nowrap">
          <Text
            size="xs"
            c={draft.problem ? undefined : 'dimmed'}
            className={draft.problem ? lines.wrong : undefined}
            role="status"
          >
            {draft.problem
              ? `${draft.problem.title} ${draft.problem.detail}`
              : draft.isSaved
                ? 'Draft saved'
                : 'Saving the draft…'}
          </Text>
          {draft.problem?.status === 409 && (
            <Button variant="default" onClick={() => window.location.reload()}>
              Load it again
            </Button>
          )}
          <Tooltip label="Undo">
            <ActionIcon variant="subtle" aria-label="Undo" disabled={!draft.undo} onClick={draft.undo}>
              <IconArrowBackUp size={18} />
            </ActionIcon>
          </Tooltip>
          <Tooltip label="Redo">
            <ActionIcon variant="subtle" aria-label="Redo" disabled={!draft.redo} onClick={draft.redo}>
              <IconArrowForwardUp size={18} />
            </ActionIcon>
          </Tooltip>
          <Publish
            recordType={type.key}
            problemCount={problemCount}
            onSettle={draft.settle}
            onPublished={(number, version) => {
              setEdition(number);
              draft.published(version);
              void queries.invalidateQueries({ queryKey: ['record-type', type.key] });
            }}
          />
        </Group>
      </Place>
      <section className={classes.rules} aria-label="Rules">
        <div className={classes.rulesHead}>
          <h2 className={classes.heading}>
            {rules.length} rules, highest first
            {problemCount > 0 && (
              <span className={lines.wrong}>
                {' '}
                · {problemCount} {problemCount === 1 ? 'problem' : 'problems'}
              </span>
            )}
          </h2>
          <Button leftSection={<IconPlus size={14} />} onClick={() => add()}>
            New rule
          </Button>
        </div>
        {hasFailed && (
          <p className={lines.wrong} role="alert">
            The rule engine could not be loaded, so the sheet does not follow what you write. The draft is kept all the same. Load
            the page again; a current browser is needed.
          </p>
        )}
        <RuleList rules={rules} problems={problems.rules} program={program} record={record} chosen={chosen} actions={actions} />
      </section>
      <section className={classes.sheet} aria-label="Sheet">
        <div className={classes.sheetBar}>
          <Switch
            size="xs"
            label="Draw what is hidden"
            checked={showHidden}
            onChange={(event) => setShowHidden(event.currentTarget.checked)}
          />
        </div>
        <Sheet
          type={type}
          record={record}
          tab={tab}
          onTab={setTab}
          showHidden={showHidden}
          depends={depends}
          isPointedAt={isPointedAt}
          aside={aside}
        />
        <TitleBlock type={type} sample={sample} view={view} edition={edition ?? null} onChange={setView} />
      </section>
    </main>
  );
}

/** Marks the table as live once states follow the typing. */
function Live({ record }: { record: OpenRecord }) {
  const { isLive } = useSummary(record);
  return <span hidden data-live={isLive} />;
}
