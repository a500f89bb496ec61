import { createContext, useContext } from 'react';
import type { Answer, Cell, ConditionClause, DecisionTable, Element, Rest, Rule } from '../../api/generated';
import type { TableReach } from '../../engine/answers';

/** What an open rule needs to know of the draft around it. */
export interface DraftSurroundings {
  /** Key of the tab that is looked at. */
  tab: string;
  /** The version of the draft that is stored. */
  version: number;
  /** The rules as they are now. */
  rules: () => Rule[];
  /** Whether the rule has just been begun, and nobody has named it. */
  isBegun: (rule: string) => boolean;
  /** Takes over how an element rests. */
  changeRest: (element: Element, rest: Partial<Rest>) => void;
  /** Clauses that were perhaps meant as well where a rule was proposed from the sheet; none for any other rule. */
  likelyClauses: (rule: Rule) => ConditionClause[];
  /** What is typed into cells of a table; null for what cannot be read. */
  hearCells: (table: DecisionTable, cells: { column: number; text: string }[]) => Promise<(Cell | Answer | null)[]>;
  /** Which rows of a table are reached, and what none covers. */
  reach: (table: DecisionTable) => Promise<TableReach>;
  /** Opens the rule's sentence in the line, to be written on. */
  writeAsText: (key: string) => void;
}

export const DraftContext = createContext<DraftSurroundings | null>(null);

export const useSurroundings = (): DraftSurroundings => useContext(DraftContext)!;
