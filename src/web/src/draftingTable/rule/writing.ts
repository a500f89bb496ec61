import { createContext, useContext } from 'react';
import type { ClauseExplanation, Element, Problem, RecordType, Vocabulary } from '../../api/generated';
import type { OpenRecord } from '../../engine/openRecord';

/** What every blank of an open rule is written with. */
export interface Writing {
  type: RecordType;
  vocabulary: Vocabulary;
  record: OpenRecord;
  /** Of this rule, with places within it. */
  problems: Problem[];
  /** Clauses of this rule with their present truth, by place within it. */
  truths: Map<string, ClauseExplanation>;
  /** Elements that are likely to be meant: on the tab that is looked at, just touched, in the rule already. */
  likely: (element: Element) => boolean;
}

export const WritingContext = createContext<Writing | null>(null);

export const useWriting = (): Writing => useContext(WritingContext)!;
