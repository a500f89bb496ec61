import { defaultRangeExtractor, useVirtualizer, type Range } from '@tanstack/react-virtual';
import { useEffect, useRef, useState } from 'react';
import type { Problem, Rule } from '../../api/generated';
import type { DraftProgram } from '../../engine/draftProgram';
import type { OpenRecord } from '../../engine/openRecord';
import { useSummary } from '../../engine/useRecord';
import { RuleRow, type RuleActions } from './RuleRow';
import classes from './RuleList.module.css';
import { useSentences } from './useSentences';

interface Props {
  rules: Rule[];
  /** Those of each rule by place, with places within it. */
  problems: Map<number, Problem[]>;
  program: DraftProgram;
  record: OpenRecord;
  chosen: string | undefined;
  actions: RuleActions;
}

/** About how high a rule is that has not been drawn yet, in pixels. */
const usualHeight = 66;

/** How long sentences wait for the sheet, in milliseconds. */
const patience = 4000;

/** How many rules are drawn above and below those that are seen. */
const around = 6;

const none: Problem[] = [];

/** The rules as sentences, highest first; the chosen one opens in place. Only those that are seen are drawn. */
export function RuleList({ rules, problems, program, record, chosen, actions }: Props) {
  const scroll = useRef<HTMLDivElement>(null);
  const open = rules.findIndex((rule) => rule.key === chosen);
  // The open rule stays drawn wherever the list is scrolled to: what is being written in it is nowhere else yet.
  const withOpen = (range: Range) =>
    [...new Set([...defaultRangeExtractor(range), ...(open >= 0 ? [open] : [])])].sort((a, b) => a - b);
  // eslint-disable-next-line react-hooks/incompatible-library -- nothing here is memoised by what it answers
  const rows = useVirtualizer({
    count: rules.length,
    getScrollElement: () => scroll.current,
    estimateSize: () => usualHeight,
    getItemKey: (place) => rules[place]!.key,
    overscan: around,
    rangeExtractor: withOpen,
  });
  const drawn = rows.getVirtualItems();
  // The live sheet comes first; where it does not come, the sentences need not wait for it.
  const { isLive } = useSummary(record);
  const [isLate, setLate] = useState(false);
  useEffect(() => {
    const timer = window.setTimeout(() => setLate(true), patience);
    return () => window.clearTimeout(timer);
  }, []);
  const sentenceOf = useSentences(
    program,
    drawn.map(({ index }) => rules[index]!),
    isLive || isLate,
  );
  useEffect(() => {
    if (open >= 0) {
      rows.scrollToIndex(open, { align: 'auto' });
    }
    // When another rule is chosen, not whenever it moves.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [chosen]);
  return (
    <div ref={scroll} className={classes.scroll} role="list">
      <div className={classes.all} style={{ height: rows.getTotalSize() }}>
        {drawn.map(({ index, key, start }) => {
          const rule = rules[index]!;
          return (
            <div
              key={key}
              ref={rows.measureElement}
              data-index={index}
              role="listitem"
              aria-setsize={rules.length}
              aria-posinset={index + 1}
              className={classes.row}
              style={{ transform: `translateY(${start}px)` }}
            >
              <RuleRow
                rule={rule}
                place={index}
                problems={problems.get(index) ?? none}
                sentence={sentenceOf(rule)}
                isOpen={rule.key === chosen}
                program={program}
                record={record}
                actions={actions}
              />
            </div>
          );
        })}
      </div>
    </div>
  );
}
