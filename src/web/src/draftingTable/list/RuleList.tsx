import { UnstyledButton } from '@mantine/core';
import { IconChevronDown, IconChevronRight } from '@tabler/icons-react';
import { defaultRangeExtractor, useVirtualizer, type Range } from '@tanstack/react-virtual';
import { useEffect, useEffectEvent, useRef, type KeyboardEvent } from 'react';
import type { DraftView, Problem } from '../../api/generated';
import type { DraftProgram } from '../../engine/draftProgram';
import type { OpenRecord } from '../../engine/openRecord';
import { RuleRow, type RuleActions } from './RuleRow';
import classes from './RuleList.module.css';
import type { ListRow } from './rows';
import { useDragging } from './useDragging';
import { useSentences } from './useSentences';
import type { Ticked } from './useTicked';

interface Props {
  rows: ListRow[];
  /** Those of each rule by place, with places within it. */
  problems: Map<number, Problem[]>;
  program: DraftProgram;
  record: OpenRecord;
  chosen: string | undefined;
  ticked: Ticked;
  actions: RuleActions;
  /** Who changed each rule last, by its key. */
  revisions: DraftView['revisions'];
  /** Whether sentences may be written now. */
  isAwaited: boolean;
  onFold: (group: string) => void;
  /** Told of a key that is pressed while a rule itself, not something in it, has the focus. */
  onRuleKey: (event: KeyboardEvent<HTMLElement>, rule: string) => void;
}

/** About how high a rule is that has not been drawn yet, in pixels; and a heading. */
const usualHeight = 66;
const headingHeight = 32;

/** How many rules are drawn above and below those that are seen. */
const around = 6;

const none: Problem[] = [];

/** The rules as sentences, highest first; the chosen one opens in place. Only those that are seen are drawn. */
export function RuleList({
  rows,
  problems,
  program,
  record,
  chosen,
  ticked,
  actions,
  revisions,
  isAwaited,
  onFold,
  onRuleKey,
}: Props) {
  const scroll = useRef<HTMLDivElement>(null);
  const open = rows.findIndex((row) => row.kind === 'rule' && row.rule.key === chosen);
  // The open rule stays drawn wherever the list is scrolled to: what is being written in it is nowhere else yet.
  const withOpen = (range: Range) =>
    [...new Set([...defaultRangeExtractor(range), ...(open >= 0 ? [open] : [])])].sort((a, b) => a - b);
  // eslint-disable-next-line react-hooks/incompatible-library -- nothing here is memoised by what it answers
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroll.current,
    estimateSize: (place) => (rows[place]!.kind === 'heading' ? headingHeight : usualHeight),
    getItemKey: (place) => keyOf(rows[place]!),
    overscan: around,
    rangeExtractor: withOpen,
  });
  const drawn = virtual.getVirtualItems();
  const sentenceOf = useSentences(
    program,
    drawn.flatMap(({ index }) => {
      const row = rows[index]!;
      return row.kind === 'rule' ? [row.rule] : [];
    }),
    isAwaited,
  );
  const showOpen = useEffectEvent(() => open >= 0 && virtual.scrollToIndex(open, { align: 'auto' }));
  // When another rule is chosen, not whenever it moves.
  useEffect(() => void showOpen(), [chosen]);
  const isGrouped = rows.some(({ kind }) => kind === 'heading');
  const dragging = useDragging((key, anchor, side) => {
    const keys = ticked.keys.has(key) ? [...ticked.keys] : [key];
    const beside = rows.find((row) => row.kind === 'rule' && row.rule.key === anchor);
    actions.place(keys, anchor, side, isGrouped && beside?.kind === 'rule' ? (beside.rule.group ?? '') : undefined);
  });
  return (
    <div ref={scroll} className={classes.scroll} data-ticking={ticked.keys.size > 0 || undefined} {...dragging.list}>
      <div
        className={classes.all}
        role="list"
        aria-label="Rules, highest first"
        onKeyDown={(event) => {
          const at = event.target as HTMLElement;
          if (at.matches('[data-rule-itself]')) {
            onRuleKey(event, at.closest<HTMLElement>('[data-rule]')!.dataset.rule!);
          }
        }}
        style={{ height: virtual.getTotalSize() }}
      >
        {drawn.map(({ index, key, start }) => {
          const row = rows[index]!;
          return (
            <div
              key={key}
              ref={virtual.measureElement}
              data-index={index}
              role="listitem"
              aria-setsize={rows.length}
              aria-posinset={index + 1}
              className={classes.row}
              data-drop={row.kind === 'rule' && dragging.over?.key === row.rule.key ? dragging.over.side : undefined}
              style={{ transform: `translateY(${start}px)` }}
            >
              {row.kind === 'heading' ? (
                <UnstyledButton className={classes.group} aria-expanded={!row.isFolded} onClick={() => onFold(row.group)}>
                  {row.isFolded ? <IconChevronRight size={14} aria-hidden /> : <IconChevronDown size={14} aria-hidden />}
                  {row.group || 'In no group'}
                  <span className={classes.count}>{row.count}</span>
                </UnstyledButton>
              ) : (
                <RuleRow
                  rule={row.rule}
                  place={row.place}
                  problems={problems.get(row.place) ?? none}
                  sentence={sentenceOf(row.rule)}
                  isOpen={row.rule.key === chosen}
                  isTicked={ticked.keys.has(row.rule.key)}
                  lastChange={revisions[row.rule.key]}
                  onTick={ticked.toggle}
                  program={program}
                  record={record}
                  actions={actions}
                />
              )}
            </div>
          );
        })}
      </div>
    </div>
  );
}

const keyOf = (row: ListRow) => (row.kind === 'heading' ? `group ${row.group}` : row.rule.key);
