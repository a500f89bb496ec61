import { Checkbox } from '@mantine/core';
import { memo, useLayoutEffect, useRef } from 'react';
import type { Problem, Revision, Rule, SentencePart } from '../../api/generated';
import type { DraftProgram } from '../../engine/draftProgram';
import type { OpenRecord } from '../../engine/openRecord';
import { useCase } from '../../engine/useRecord';
import { Balloon } from '../../sheet/Balloon';
import lines from '../../sheet/lines.module.css';
import { isOn } from '../rule/compose';
import { OpenRule } from '../rule/OpenRule';
import classes from './RuleList.module.css';
import { SentenceText } from './SentenceText';

/** What can be done to rules, by their keys. The same functions at every drawing. */
export interface RuleActions {
  choose: (key: string | undefined) => void;
  change: (next: Rule) => void;
  move: (key: string, by: number) => void;
  /** Puts rules before or after another one, and into a group where one is given; '' for none. */
  place: (keys: string[], anchor: string, side: 'before' | 'after', group?: string) => void;
  moveTo: (keys: string[], to: 'top' | 'bottom') => void;
  switch: (keys: string[], on: boolean) => void;
  group: (keys: string[], group: string | null) => void;
  duplicate: (keys: string[]) => void;
  remove: (keys: string[]) => void;
}

interface Props {
  rule: Rule;
  place: number;
  /** Those of this rule, with places within it. */
  problems: Problem[];
  /** Undefined until it has been written. */
  sentence: SentencePart[] | undefined;
  isOpen: boolean;
  isTicked: boolean;
  /** Who changed it last; undefined where it is as it came. */
  lastChange: Revision | undefined;
  onTick: (key: string, isRange: boolean) => void;
  program: DraftProgram;
  record: OpenRecord;
  actions: RuleActions;
}

/** One rule as its sentence, or opened in place. */
export const RuleRow = memo(function RuleRow(props: Props) {
  const { rule, place, problems, sentence, isOpen, isTicked, lastChange, onTick, program, record, actions } = props;
  const caseInForce = useCase(record, place);
  const isInForce = caseInForce >= 0;
  const row = useFocusInPlace(isOpen);
  return (
    <div
      ref={row}
      className={classes.rule}
      data-rule={rule.key}
      data-open={isOpen || undefined}
      data-in-force={isInForce || undefined}
      data-off={!isOn(rule) || undefined}
    >
      <div className={classes.margin} draggable title="Drag to put the rule elsewhere">
        <Balloon
          isRule
          number={place + 1}
          isInForce={isInForce}
          label={isOpen ? `Close rule ${place + 1}` : `Open rule ${place + 1}, ${rule.name}`}
          onPress={() => actions.choose(isOpen ? undefined : rule.key)}
        />
        <Checkbox
          className={classes.tick}
          size="xs"
          aria-label={`Tick rule ${place + 1}`}
          checked={isTicked}
          onChange={(event) => onTick(rule.key, (event.nativeEvent as MouseEvent).shiftKey)}
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
          lastChange={lastChange}
          onChange={actions.change}
          onMove={(by) => actions.move(rule.key, by)}
          onDuplicate={() => actions.duplicate([rule.key])}
          onDelete={() => actions.remove([rule.key])}
          onEnd={() => actions.choose(undefined)}
        />
      ) : (
        <button type="button" data-rule-itself className={classes.closed} onClick={() => actions.choose(rule.key)}>
          <span className={classes.name}>
            {rule.name}
            <span className={lines.word}>{!isOn(rule) ? 'off' : isInForce ? 'in force' : ''}</span>
          </span>
          <SentenceText parts={sentence ?? []} />
          {problems.length > 0 && <span className={lines.wrong}>{problems[0]!.what}</span>}
        </button>
      )}
    </div>
  );
});

/** A rule that opens or closes under the keyboard keeps it: it does not fall to the page. */
function useFocusInPlace(isOpen: boolean) {
  const row = useRef<HTMLDivElement>(null);
  const was = useRef(isOpen);
  useLayoutEffect(() => {
    const hasChanged = was.current !== isOpen;
    was.current = isOpen;
    const at = document.activeElement;
    if (hasChanged && (!at || at === document.body || at.matches('[data-rule-itself]'))) {
      row.current
        ?.querySelector<HTMLElement>(isOpen ? '[data-rule-itself]' : `.${classes.closed}`)
        ?.focus({ preventScroll: true });
    }
  }, [isOpen]);
  return row;
}
