import { useMemo, type RefObject } from 'react';
import type { Definition, Rule } from '../../api/generated';
import { duplicate, moved, without } from '../rule/compose';
import type { RuleActions } from './RuleRow';

/** What can be done to a rule, found by its key in the rules as they are then. The same functions for as long as their operands are. */
export function useRuleActions(
  latest: RefObject<Pick<Definition, 'rules'>>,
  change: (rule: Rule) => void,
  changeRules: (rules: Rule[]) => void,
  choose: (key: string | undefined) => void,
  setChosen: (key: string | undefined) => void,
): RuleActions {
  return useMemo(() => {
    const at = (key: string, then: (rules: Rule[], place: number) => void) => {
      const place = latest.current.rules.findIndex((rule) => rule.key === key);
      if (place >= 0) {
        then(latest.current.rules, place);
      }
    };
    return {
      choose,
      change,
      move: (key, by) =>
        at(key, (rules, place) => changeRules(moved(rules, place, Math.max(0, Math.min(rules.length - 1, place + by))))),
      duplicate: (key) =>
        at(key, (rules, place) => {
          const copy = duplicate(rules[place]!);
          changeRules([...rules.slice(0, place + 1), copy, ...rules.slice(place + 1)]);
          choose(copy.key);
        }),
      remove: (key) =>
        at(key, (rules, place) => {
          changeRules(without(rules, place));
          setChosen(undefined);
        }),
    };
  }, [latest, change, changeRules, choose, setChosen]);
}
