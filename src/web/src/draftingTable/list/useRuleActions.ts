import { useMemo, type RefObject } from 'react';
import type { Definition, Rule } from '../../api/generated';
import { duplicate, moved } from '../rule/compose';
import type { RuleActions } from './RuleRow';
import { placed } from './rows';

/** Where the rules are, and what takes them in. The same functions for as long as the draft is open. */
interface Draft {
  latest: RefObject<Pick<Definition, 'rules'>>;
  change: (rule: Rule) => void;
  changeRules: (rules: Rule[]) => void;
  /** Takes in the same rules in another order, and says where that matters. */
  reorder: (rules: Rule[]) => void;
  choose: (key: string | undefined) => void;
  setChosen: (key: string | undefined) => void;
}

/** What can be done to rules, found by their keys in the rules as they are then. The same functions for as long as their operands are. */
export function useRuleActions({ latest, change, changeRules, reorder, choose, setChosen }: Draft): RuleActions {
  return useMemo(() => {
    const all = () => latest.current.rules;
    const each = (keys: string[], next: (rule: Rule) => Rule) =>
      changeRules(all().map((rule) => (keys.includes(rule.key) ? next(rule) : rule)));
    return {
      choose,
      change,
      move(key, by) {
        const place = all().findIndex((rule) => rule.key === key);
        if (place >= 0) {
          reorder(moved(all(), place, Math.max(0, Math.min(all().length - 1, place + by))));
        }
      },
      place(keys, anchor, side, group) {
        const next = placed(all(), keys, anchor, side);
        reorder(
          group === undefined ? next : next.map((rule) => (keys.includes(rule.key) ? { ...rule, group: group || null } : rule)),
        );
      },
      moveTo(keys, to) {
        const [moving, rest] = [all().filter(({ key }) => keys.includes(key)), all().filter(({ key }) => !keys.includes(key))];
        reorder(to === 'top' ? [...moving, ...rest] : [...rest, ...moving]);
      },
      switch: (keys, on) => each(keys, (rule) => ({ ...rule, on })),
      group: (keys, group) => each(keys, (rule) => ({ ...rule, group })),
      duplicate(keys) {
        const copies: Rule[] = [];
        changeRules(
          all().flatMap((rule) => {
            if (!keys.includes(rule.key)) {
              return [rule];
            }
            const copy = duplicate(rule);
            copies.push(copy);
            return [rule, copy];
          }),
        );
        if (copies.length === 1) {
          choose(copies[0]!.key);
        }
      },
      remove(keys) {
        changeRules(all().filter(({ key }) => !keys.includes(key)));
        setChosen(undefined);
      },
    };
  }, [latest, change, changeRules, reorder, choose, setChosen]);
}
