import { ActionIcon, Button } from '@mantine/core';
import { IconX } from '@tabler/icons-react';
import { useEffect, useRef, useState } from 'react';
import type { Effect, Element, ElementExplanation, RecordType, Rest, Rule, Vocabulary } from '../../api/generated';
import type { OpenRecord } from '../../engine/openRecord';
import { useFromRecord } from '../../engine/useRecord';
import { Balloon } from '../../sheet/Balloon';
import { Chip } from '../rule/Chip';
import { labelOf, targetOptions } from '../rule/offers';
import { drives } from './connections';
import classes from './ElementPanel.module.css';
import { Resting } from './Resting';

interface Props {
  elements: Element[];
  type: RecordType;
  record: OpenRecord;
  vocabulary: Vocabulary;
  rules: Rule[];
  /** Keys of the rules that touch an element: what they jump over and end counts too. */
  touchedBy: (element: Element) => string[];
  onPropose: (effect: Effect, isOnly: boolean) => void;
  onNewRule: () => void;
  onOpen: (rule: string) => void;
  onAddTo: (rule: string) => void;
  onBehaveLike: (neighbour: Element) => void;
  onRest: (rest: Partial<Rest>) => void;
  onSelect: (elements: Element[]) => void;
  onClose: () => void;
}

/** Everything about an element that was pressed on the sheet: how it is and why, which rules touch it and which it drives, how it rests, and what a rule could make of it. */
export function ElementPanel(props: Props) {
  const {
    elements,
    type,
    record,
    vocabulary,
    rules,
    touchedBy,
    onPropose,
    onNewRule,
    onOpen,
    onAddTo,
    onBehaveLike,
    onRest,
    onSelect,
    onClose,
  } = props;
  const [first] = elements;
  const panel = useRef<HTMLElement>(null);
  // The panel takes room from the sheet, and more once it is known why things are so: what it speaks of stays in view.
  useEffect(() => {
    const drawn = first && document.querySelector(`[data-${first.kind}="${CSS.escape(first.key)}"]`);
    const growing = new ResizeObserver(() => drawn?.scrollIntoView({ block: 'nearest' }));
    growing.observe(panel.current!);
    return () => growing.disconnect();
  }, [first]);
  const writing = { type, vocabulary, record, likely: () => false, problems: [], truths: new Map() };
  const name = elements.map((element) => labelOf(writing, element)).join(', ');
  const touchers = new Set(elements.flatMap(touchedBy));
  const touching = rules.filter((rule) => touchers.has(rule.key));
  const driven = rules.filter((rule) => elements.some((element) => drives(rule, element)));
  const number = (rule: Rule) => rules.indexOf(rule) + 1;
  const other = { value: JSON.stringify(first), label: name };
  const proposals: { label: string; effect: Effect; isOnly?: boolean }[] = [
    { label: 'Show it only then', effect: { kind: 'show', targets: elements }, isOnly: true },
    { label: 'Hide it', effect: { kind: 'hide', targets: elements, value: 'keep' } },
    { label: 'Require it to move on', effect: { kind: 'require', targets: elements, level: 'toMoveOn' } },
    { label: 'Require it to save', effect: { kind: 'require', targets: elements, level: 'toSave' } },
    { label: 'Lock it', effect: { kind: 'lock', targets: elements } },
  ];
  return (
    <section ref={panel} className={classes.panel} aria-label={`About ${name}`}>
      <div className={classes.head}>
        <h2 className={classes.name}>{name}</h2>
        <Chip
          blank="another element"
          label="and …"
          options={() => targetOptions(writing)}
          onPick={(value) => onSelect([...elements, JSON.parse(value) as Element])}
        />
        <ActionIcon variant="subtle" aria-label="Close" onClick={onClose}>
          <IconX size={16} />
        </ActionIcon>
      </div>
      <div className={classes.row}>
        <span className={classes.caption}>While it is as on the sheet now</span>
        {proposals.map(({ label, effect, isOnly = false }) => (
          <Button key={label} size="compact-sm" variant="default" onClick={() => onPropose(effect, isOnly)}>
            {label}
          </Button>
        ))}
        <Button size="compact-sm" variant="subtle" onClick={onNewRule}>
          Other rule…
        </Button>
      </div>
      <Account record={record} element={first!} onOpen={onOpen} />
      <div className={classes.row}>
        <span className={classes.caption}>Touched by</span>
        {touching.length === 0 && 'no rule'}
        {touching.map((rule) => (
          <Balloon
            key={rule.key}
            number={number(rule)}
            isInForce={false}
            label={`Rule ${number(rule)}, ${rule.name}`}
            onPress={() => onOpen(rule.key)}
          />
        ))}
        <span className={classes.caption}>Drives</span>
        {driven.length === 0 && 'no rule'}
        {driven.map((rule) => (
          <Balloon
            key={rule.key}
            number={number(rule)}
            isInForce={false}
            label={`Rule ${number(rule)}, ${rule.name}`}
            onPress={() => onOpen(rule.key)}
          />
        ))}
      </div>
      <div className={classes.row}>
        <Chip
          blank="rule"
          label="add it to a rule"
          options={() =>
            rules
              .filter((rule) => !touching.includes(rule) && !rule.table)
              .map((rule) => ({ value: rule.key, label: `${number(rule)} ${rule.name}` }))
          }
          onPick={onAddTo}
        />
        <Chip
          blank="neighbour"
          label="behave like …"
          options={() =>
            targetOptions(writing, ({ kind, key }) => kind === first?.kind && key !== first.key).filter(
              ({ value }) => value !== other.value,
            )
          }
          onPick={(value) => onBehaveLike(JSON.parse(value) as Element)}
        />
      </div>
      <Resting type={type} element={first!} onRest={onRest} />
    </section>
  );
}

/** How the element is now and why, in words. */
function Account({ record, element, onOpen }: { record: OpenRecord; element: Element; onOpen: (rule: string) => void }) {
  const [answer, setAnswer] = useState<ElementExplanation | null>(null);
  const version = useFromRecord(record, () => record.version);
  useEffect(() => {
    let isWanted = true;
    void record.explain(element.kind, element.key).then((found) => isWanted && setAnswer(found));
    return () => {
      isWanted = false;
    };
  }, [record, element, version]);
  const said = (answer?.facets ?? []).filter(({ winner, sentence }) => winner ?? sentence.includes('counts for nothing'));
  // What no rule says anything of is said once; that a value is the person's own, and all choices are there, goes without saying.
  const atRest = (answer?.facets ?? []).filter(
    (facet) => !said.includes(facet) && facet.facet !== 'value' && facet.facet !== 'choices',
  );
  return (
    <ul className={classes.account}>
      {atRest.length > 0 && <li>At rest: {atRest.map(({ state }) => state).join(', ')}.</li>}
      {said.map((facet) => (
        <li key={facet.facet}>
          {facet.sentence}
          {facet.winner && (
            <Button size="compact-xs" variant="subtle" onClick={() => onOpen(facet.winner!.rule)}>
              open the rule
            </Button>
          )}
          {facet.winner && facet.losers.length > 0 && (
            <span className={classes.overruled}>
              {' '}
              It overrules{' '}
              {facet.losers.map((loser, i) => (
                <span key={`${loser.rule} ${i}`}>
                  {i > 0 && ', '}rule {loser.number}, “{loser.name}” ({loser.says})
                </span>
              ))}
              .
            </span>
          )}
        </li>
      ))}
    </ul>
  );
}
