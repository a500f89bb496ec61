import { ActionIcon, VisuallyHidden } from '@mantine/core';
import { useHotkeys, useLocalStorage } from '@mantine/hooks';
import { IconPencilPlus } from '@tabler/icons-react';
import {
  startTransition,
  useCallback,
  useDeferredValue,
  useEffect,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
  type KeyboardEvent,
} from 'react';
import type { DecisionTable, Effect, Element, ElementKind, OtherWord, Rest, Rule } from '../api/generated';
import type { Values } from '../engine/answers';
import type { DraftProgram } from '../engine/draftProgram';
import { useSummary } from '../engine/useRecord';
import type { OpenRecord } from '../engine/openRecord';
import lines from '../sheet/lines.module.css';
import { Sheet, tabOf } from '../sheet/Sheet';
import classes from './DraftSheet.module.css';
import { Collisions } from './draft/Collisions';
import { Paste } from './draft/Paste';
import { DraftStrip } from './draft/DraftStrip';
import type { OpenedDraft } from './draft/OpenDraft';
import { useProblems } from './draft/useProblems';
import { useProgram } from './draft/useProgram';
import { likeNeighbour, touches, withTargets } from './element/connections';
import { Editions } from './editions/Editions';
import { ElementPanel } from './element/ElementPanel';
import { exampleOf } from './line/example';
import { Line } from './line/Line';
import { OfferedWord } from './line/OfferedWord';
import { isKnown } from './line/otherWords';
import { OtherWords } from './line/OtherWords';
import { useLine } from './line/useLine';
import { focusRule } from './list/focusRule';
import { Rules } from './list/Rules';
import { useOpenRules } from './list/useOpenRules';
import { NewRule } from './NewRule';
import { allTargets, conditionOf, newGrid, newRule, onlyWhile, sameElement } from './rule/compose';
import { DraftContext } from './rule/draftContext';
import { withRest } from './rule/resting';
import { useVocabulary } from './rule/useVocabulary';
import { Demonstration, likelyClauses } from './sheet/demonstration';
import { RuleBalloons } from './sheet/RuleBalloons';
import { TitleBlock } from './sheet/TitleBlock';
import { useSample } from './sheet/useSample';
import { useElementsTouched } from './sheet/touching';
import { useTouching } from './sheet/useTouching';
import { useView } from './sheet/useView';
import { viewOf } from './sheet/view';
import { Shortcuts } from './Shortcuts';

/** Rules to the left, the live sheet to the right, and balloons between them. */
export function DraftSheet({ source, first }: { source: OpenedDraft; first: number }) {
  const { draft } = source;
  const { definition } = draft;
  const { rules, recordType: type } = definition;
  const [program, hasFailed] = useProgram(definition);
  const [selected, setSelected] = useState<Element[]>([]);
  const [dialog, setDialog] = useState<'keys' | 'editions' | 'paste' | 'words'>();
  const [offered, setOffered] = useState<OtherWord>();
  const findInput = useRef<HTMLInputElement>(null);
  const [view, changeView] = useView(type, first);
  const [usual] = useState(() => viewOf(new URLSearchParams(), type, first));
  const [demonstration] = useState(() => new Demonstration());
  /** Rules that were proposed from the sheet: beside them stands what was perhaps meant as well. */
  const [proposed] = useState(() => new Set<string>());
  const onTried = useCallback((tried: Values) => changeView({ tried }), [changeView]);
  const { sample, record } = useSample(type, view, program, draft.edition !== null, onTried);
  const latest = useRef(definition);
  useLayoutEffect(() => {
    latest.current = definition;
  }, [definition]);
  const problems = useProblems(source, program, record);
  const vocabulary = useVocabulary(program);
  const line = useLine(type.key);
  const touching = useTouching(rules, program);
  const { changeRules, changeType, shared } = draft;
  const tab = view.tab;
  const setTab = useCallback((next: string) => changeView({ tab: next }), [changeView]);
  const onChoose = useCallback(
    (rule: Rule | undefined) => {
      setSelected([]);
      const target = rule && allTargets(rule)[0];
      const onTab = target && tabOf(latest.current, target.kind, target.key, view.form);
      if (onTab) {
        // The rule opens first; the sheet turns to it after.
        startTransition(() => setTab(onTab));
      }
    },
    [setTab, view.form],
  );
  const opened = useOpenRules({ latest, program, shared, changeRules, onChoose });
  const { chosen, choose, setChosen, add, change, isUnnamed } = opened;
  useEffect(() => touching.choose(chosen), [touching, chosen]);

  function propose(effect: Effect, isOnly: boolean) {
    const rule = newRule(effect, conditionOf(demonstration.fresh(type, record!, view, usual)));
    demonstration.use(record!, view);
    proposed.add(rule.key);
    setSelected([]);
    add(isOnly ? onlyWhile(rule, true) : rule);
  }

  const rest = useCallback(
    (elements: Element[], next: Partial<Rest>) =>
      changeType(elements.reduce((of, element) => withRest(of, element, next), latest.current.recordType)),
    [changeType],
  );

  function behaveLike(neighbour: Element) {
    const [element] = selected;
    changeRules(rules.map((rule) => likeNeighbour(rule, neighbour, element!) ?? rule));
  }

  function made(rule: Rule) {
    setOffered(undefined);
    const before = rules.find((one) => one.key === rule.key);
    if (before) {
      change({ ...rule, on: before.on, reason: before.reason });
      setChosen(rule.key);
      line.leave();
      focusRule(rule.key);
    } else {
      // The line keeps the keyboard: the next rule may be on its way already.
      add(rule);
    }
  }

  const writeAsText = useCallback(
    (rule: string) => {
      const found = latest.current.rules.find((one) => one.key === rule);
      if (found) {
        program.sentenceOf(found).then(
          (sentence) => line.edit(rule, sentence),
          () => undefined,
        );
      }
    },
    [program, line],
  );

  // Somebody who speaks what they write, or whose hand is not steady, switches them off (WCAG 2.1.4).
  const [hasLetterKeys, setLetterKeys] = useLocalStorage({ key: 'dibujo letter keys', defaultValue: true });
  const commands: Record<string, () => void> = {
    '/': () => line.focus(),
    n: () => add(newRule()),
    g: () => add(newGrid()),
    f: () => findInput.current?.focus(),
    e: () => setDialog('editions'),
    j: () => opened.step(1),
    k: () => opened.step(-1),
    t: () => chosen && writeAsText(chosen),
    '?': () => setDialog('keys'),
  };
  // A letter is text wherever text could be meant: it is a command only while a rule itself has the keyboard.
  function onRuleKey(event: KeyboardEvent<HTMLElement>, rule: string) {
    const { key, altKey, ctrlKey, metaKey } = event;
    if (altKey && (key === 'ArrowUp' || key === 'ArrowDown')) {
      event.preventDefault();
      opened.actions.move(rule, key === 'ArrowUp' ? -1 : 1);
      // Elsewhere in the list it is drawn anew, and keeps the keyboard.
      focusRule(rule);
    } else if (hasLetterKeys && !altKey && !ctrlKey && !metaKey && Object.hasOwn(commands, key)) {
      event.preventDefault();
      commands[key]!();
    }
  }
  useHotkeys([
    ['mod+z', shared.undo],
    ['mod+shift+z', shared.redo],
    ['Escape', () => (selected.length > 0 ? setSelected([]) : setChosen(undefined))],
  ]);
  // From anywhere, also while something is typed.
  useHotkeys(
    [
      ['alt+l', () => line.focus()],
      ['alt+n', () => add(newRule())],
      ['alt+g', () => add(newGrid())],
      ['alt+j', () => opened.step(1)],
      ['alt+k', () => opened.step(-1)],
      ['alt+t', () => chosen && writeAsText(chosen)],
    ],
    [],
  );

  // The rule that is open, by what it acts on: while it is written, that is most often the same.
  const open = rules.find((rule) => rule.key === chosen);
  const pointed = useDeferredValue([...(open ? allTargets(open) : []), ...selected].map((t) => `${t.kind}:${t.key}`).join(' '));
  const isPointedAt = useCallback(
    (kind: ElementKind, element: string) => pointed.split(' ').includes(`${kind}:${element}`),
    [pointed],
  );
  const elements = useElementsTouched(touching);
  const depends = useCallback(
    (kind: ElementKind, element: string) => elements.split(' ').includes(`${kind}:${element}`),
    [elements],
  );
  const select = useCallback(
    (element: Element, isFurther: boolean) =>
      setSelected((before) =>
        !isFurther ? [element] : before.some((one) => sameElement(one, element)) ? before : [...before, element],
      ),
    [],
  );
  const aside = useCallback(
    (kind: ElementKind, element: string) =>
      record && (
        <span className={classes.aside}>
          <RuleBalloons touching={touching} record={record} kind={kind} elementKey={element} onChoose={choose} />
          <ActionIcon
            className={classes.demonstrate}
            variant="subtle"
            size="md"
            aria-label="Make a rule for this, or see what touches it"
            onClick={(event) => select({ kind, key: element }, event.ctrlKey || event.metaKey || event.shiftKey)}
          >
            <IconPencilPlus size={15} />
          </ActionIcon>
        </span>
      ),
    [record, touching, choose, select],
  );
  const surroundings = useMemo(
    () => ({
      tab,
      rules: () => latest.current.rules,
      isBegun: isUnnamed,
      version: draft.version,
      changeRest: (element: Element, next: Partial<Rest>) => rest([element], next),
      likelyClauses: (rule: Rule) =>
        proposed.has(rule.key) && record && sample ? likelyClauses(rule, latest.current.rules, type, record, sample, view) : [],
      hearCells: (...operands: Parameters<DraftProgram['hearCells']>) => program.hearCells(...operands),
      writeAsText,
      reach: (table: DecisionTable) => program.reach(table),
    }),
    [tab, rest, proposed, record, sample, type, view, program, writeAsText, isUnnamed, draft.version],
  );
  if (!sample || !record) {
    return null;
  }

  // Blanks of a rule that is just being written are no mistakes yet.
  const begun = open && isUnnamed(open.key) ? rules.indexOf(open) : -1;
  const problemCount =
    problems.type.length + [...problems.rules].reduce((count, [place, of]) => count + (place === begun ? 0 : of.length), 0);
  return (
    <DraftContext value={surroundings}>
      <main className={classes.table} data-wide={open?.table ? true : undefined}>
        <Live record={record} />
        <DraftStrip
          sheet="Rules"
          shared={shared}
          state={draft}
          rule={chosen}
          problems={problems}
          onKeys={() => setDialog('keys')}
          onEditions={() => setDialog('editions')}
          onOpen={choose}
        />
        <section className={classes.rules} aria-label="Rules">
          <div className={classes.rulesHead}>
            <h2 className={classes.heading}>
              {type.label}: {rules.length} {rules.length === 1 ? 'rule' : 'rules'}, highest first
              {problemCount > 0 && (
                <span className={lines.wrong}>
                  {' '}
                  · {problemCount} {problemCount === 1 ? 'problem' : 'problems'}
                </span>
              )}
            </h2>
            <NewRule onNew={add} onPaste={() => setDialog('paste')} />
          </div>
          <Line
            program={program}
            key={line.editing}
            input={line.input}
            start={line.start}
            example={exampleOf(type, view.form, tab)}
            onKeep={line.keep}
            editing={rules.find((rule) => rule.key === line.editing)}
            onMake={made}
            onWord={(word) => setOffered(isKnown(latest.current.recordType, word) ? undefined : word)}
            onUndo={(isAgain) => (isAgain ? shared.redo() : shared.undo())}
            onWords={() => setDialog('words')}
            onLeave={line.leave}
          />
          {offered && (
            <OfferedWord
              type={type}
              word={offered}
              onTake={changeType}
              onDone={() => {
                setOffered(undefined);
                line.focus();
              }}
            />
          )}
          {hasFailed && (
            <p className={lines.wrong} role="alert">
              The rule engine could not be loaded, so the sheet does not follow what you write. The draft is kept all the same.
              Load the page again; a current browser is needed.
            </p>
          )}
          <Collisions
            recordType={type.key}
            collisions={draft.collisions}
            definition={definition}
            program={program}
            shared={shared}
            revisions={draft.revisions}
          />
          <Rules
            definition={definition}
            edition={draft.edition}
            version={draft.version}
            revisions={draft.revisions}
            problems={problems.rules}
            program={program}
            record={record}
            vocabulary={vocabulary}
            chosen={chosen}
            actions={opened.actions}
            orderNotes={opened.orderNotes}
            onOrderRead={opened.forgetOrder}
            findInput={findInput}
            onRuleKey={onRuleKey}
          />
        </section>
        <section className={classes.sheet} aria-label="Sheet">
          <VisuallyHidden component="h2">Sheet</VisuallyHidden>
          <Sheet
            type={type}
            record={record}
            formKey={view.form}
            tab={tab}
            onTab={setTab}
            showHidden={!view.asMember}
            depends={depends}
            isPointedAt={isPointedAt}
            aside={view.asMember ? undefined : aside}
          />
          {selected.length > 0 && vocabulary && (
            <ElementPanel
              elements={selected}
              type={type}
              record={record}
              vocabulary={vocabulary}
              rules={rules}
              touchedBy={({ kind, key }) => touching.of(kind, key).map((toucher) => toucher.key)}
              onPropose={propose}
              onNewRule={() => propose({ kind: 'require', targets: selected, level: 'toMoveOn' }, false)}
              onOpen={choose}
              onAddTo={(rule) => {
                const found = rules.find((one) => one.key === rule)!;
                change(
                  withTargets(
                    found,
                    selected.filter((element) => !touches(found, element)),
                  ),
                );
                choose(rule);
              }}
              onBehaveLike={behaveLike}
              onRest={(next) => rest(selected, next)}
              onSelect={setSelected}
              onClose={() => setSelected([])}
            />
          )}
          <TitleBlock type={type} sample={sample} record={record} view={view} edition={draft.edition} onChange={changeView} />
        </section>
        <Shortcuts
          isOpen={dialog === 'keys'}
          onClose={() => setDialog(undefined)}
          hasLetterKeys={hasLetterKeys}
          onLetterKeys={setLetterKeys}
        />
        <Editions
          recordType={type.key}
          draft={definition}
          version={draft.version}
          isOpen={dialog === 'editions'}
          onClose={() => setDialog(undefined)}
          onChange={shared.change}
        />
        <OtherWords type={type} isOpen={dialog === 'words'} onChange={changeType} onClose={() => setDialog(undefined)} />
        <Paste
          isOpen={dialog === 'paste'}
          rules={rules}
          program={program}
          onAdd={(added) => changeRules([...added, ...latest.current.rules])}
          onClose={() => setDialog(undefined)}
        />
      </main>
    </DraftContext>
  );
}

/** Marks the table as live once states follow the typing. */
function Live({ record }: { record: OpenRecord }) {
  const { isLive } = useSummary(record);
  return <span hidden data-live={isLive} />;
}
