import { ActionIcon, Button, Group, Switch, Text, Tooltip } from '@mantine/core';
import { useHotkeys } from '@mantine/hooks';
import { IconArrowBackUp, IconArrowForwardUp, IconPlus } from '@tabler/icons-react';
import { useQueryClient } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import type { DraftView, Effect, ElementKind } from '../api/generated';
import type { Engine } from '../engine/engine';
import { Place } from '../frame/Place';
import { Balloon } from '../sheet/Balloon';
import lines from '../sheet/lines.module.css';
import { Sheet, tabOf } from '../sheet/Sheet';
import { allTargets, conditionOf, newRule } from './compose';
import { Demonstrate } from './Demonstrate';
import classes from './DraftSheet.module.css';
import { Publish } from './Publish';
import { RuleList } from './RuleList';
import { TitleBlock, type View } from './TitleBlock';
import { useDraft } from './useDraft';
import { useSample } from './useSample';

/** Rules to the left, the live sheet to the right, and balloons between them. */
export function DraftSheet({ engine, stored, first }: { engine: Engine; stored: DraftView; first: number }) {
  const type = stored.definition.recordType;
  const queries = useQueryClient();
  const draft = useDraft(type.key, stored);
  const { definition } = draft;
  const { rules } = definition;
  const compiled = useMemo(() => engine.compile(definition), [engine, definition]);
  const [edition, setEdition] = useState(stored.edition);
  const [chosen, setChosen] = useState<string>();
  const [tab, setTab] = useState('');
  const [showHidden, setShowHidden] = useState(true);
  const [view, setView] = useState<View>({
    record: first,
    stage: '',
    role: type.roles?.find((r) => r.key !== 'administrator')?.key ?? '',
    isNew: false,
  });
  const { sample, record, trial } = useSample(type.key, view, compiled);
  useHotkeys([
    ['mod+z', () => draft.undo?.()],
    ['mod+shift+z', () => draft.redo?.()],
  ]);
  const touching = useMemo(() => {
    const touching = new Map<string, number[]>();
    rules.forEach((rule, i) =>
      new Set(allTargets(rule).map((t) => `${t.kind}:${t.key}`)).forEach((element) =>
        touching.set(element, [...(touching.get(element) ?? []), i]),
      ),
    );
    return touching;
  }, [rules]);
  if (!sample || !record) {
    return null;
  }

  const open = rules.findIndex((rule) => rule.key === chosen);
  const rulesOn = (kind: ElementKind, key: string) => touching.get(`${kind}:${key}`) ?? [];

  function choose(key: string | undefined) {
    setChosen(key);
    const rule = rules.find((r) => r.key === key);
    const target = rule && allTargets(rule)[0];
    const onTab = target && tabOf(definition, target.kind, target.key);
    if (onTab) {
      setTab(onTab);
    }
  }

  function add(effect?: Effect) {
    const rule = effect ? newRule(rules, effect, conditionOf(trial)) : newRule(rules);
    draft.changeRules([...rules, rule]);
    setChosen(rule.key);
    window.setTimeout(() => document.querySelector(`[data-rule="${rule.key}"]`)?.scrollIntoView({ block: 'nearest' }), 50);
  }

  const problemCount = compiled.problems.length;
  return (
    <main className={classes.table}>
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
              void queries.invalidateQueries({ queryKey: ['edition', type.key] });
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
        <div className={classes.scroll}>
          <RuleList
            rules={rules}
            compiled={compiled}
            record={record}
            chosen={chosen}
            onChoose={choose}
            onChange={draft.changeRules}
          />
        </div>
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
          definition={definition}
          record={record}
          tab={tab}
          onTab={setTab}
          showHidden={showHidden}
          depends={(kind, key) => rulesOn(kind, key).length > 0}
          isPointedAt={(kind, key) => open >= 0 && rulesOn(kind, key).includes(open)}
          aside={(kind, key) => (
            <span className={classes.aside}>
              {rulesOn(kind, key).map((i) => (
                <Balloon
                  key={i}
                  number={i + 1}
                  isInForce={record.caseInForce(i) >= 0}
                  isChosen={i === open}
                  label={`Rule ${i + 1}, ${rules[i]!.name}${record.caseInForce(i) >= 0 ? ', in force' : ''}`}
                  onPress={() => setChosen(rules[i]!.key)}
                />
              ))}
              {kind !== 'tab' && <Demonstrate element={{ kind, key }} onPropose={add} />}
            </span>
          )}
        />
        <TitleBlock definition={definition} sample={sample} view={view} edition={edition ?? null} onChange={setView} />
      </section>
    </main>
  );
}
