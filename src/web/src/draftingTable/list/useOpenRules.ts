import { useCallback, useState, type RefObject } from 'react';
import type { Definition, Rule } from '../../api/generated';
import type { DraftProgram } from '../../engine/draftProgram';
import type { SharedDraft } from '../draft/sharedDraft';
import { useRuleActions } from './useRuleActions';

interface Draft {
  /** The draft as it is now. */
  latest: RefObject<Definition>;
  program: DraftProgram;
  shared: SharedDraft;
  changeRules: (rules: Rule[]) => void;
  /** Told which rule was opened by choice, or that it was closed. */
  onChoose: (rule: Rule | undefined) => void;
}

/** The rules under the administrator's hands: which is open, what is added and changed, and what another order means. */
export function useOpenRules({ latest, program, shared, changeRules, onChoose }: Draft) {
  const [chosen, setChosen] = useState<string | undefined>(
    () => new URLSearchParams(window.location.search).get('rule') ?? undefined,
  );
  const [orderNotes, setOrderNotes] = useState<string[]>([]);
  /** Rules that nobody has named: they are called by what they do. */
  const [unnamed] = useState(() => new Set<string>());
  const { amend } = shared;

  const choose = useCallback(
    (key: string | undefined) => {
      setChosen(key);
      onChoose(latest.current.rules.find((one) => one.key === key));
    },
    [latest, onChoose],
  );

  /** Calls a rule by what it does, unless somebody has named it. */
  const call = useCallback(
    (rule: Rule) => {
      if (rule.name === '' || unnamed.has(rule.key)) {
        unnamed.add(rule.key);
        void program.ruleName(rule).then(
          (name) => unnamed.has(rule.key) && name !== rule.name && amend(rule.key, { name }),
          () => undefined,
        );
      }
    },
    [program, amend, unnamed],
  );

  /** Puts a rule above the open one, or on top: what is said last counts first. */
  const add = useCallback(
    (rule: Rule) => {
      const { rules } = latest.current;
      const at = Math.max(
        0,
        rules.findIndex((one) => one.key === chosen),
      );
      changeRules([...rules.slice(0, at), rule, ...rules.slice(at)]);
      setChosen(rule.key);
      call(rule);
    },
    [latest, changeRules, chosen, call],
  );

  const change = useCallback(
    (next: Rule) => {
      const { rules } = latest.current;
      const rule = rules.find((one) => one.key === next.key);
      if (!rule) {
        return;
      }
      if (next.name !== rule.name) {
        unnamed.delete(rule.key);
      }
      changeRules(rules.map((one) => (one === rule ? next : one)));
      if (next.name === rule.name) {
        call(next);
      }
    },
    [latest, changeRules, call, unnamed],
  );

  const reorder = useCallback(
    (next: Rule[]) => {
      void program.reordered(next).then(setOrderNotes, () => undefined);
      changeRules(next);
    },
    [program, changeRules],
  );
  const actions = useRuleActions({ latest, change, changeRules, reorder, choose, setChosen });

  /** Opens the rule so many places further down. */
  function step(by: number) {
    const { rules } = latest.current;
    const at = rules.findIndex((one) => one.key === chosen);
    const next = rules[at < 0 ? (by > 0 ? 0 : rules.length - 1) : at + by];
    if (next) {
      choose(next.key);
    }
  }

  return {
    chosen,
    choose,
    /** Opens or closes a rule and leaves everything else as it is. */
    setChosen,
    add,
    change,
    actions,
    step,
    /** Where the last change of their order matters, a sentence each. */
    orderNotes,
    forgetOrder: useCallback(() => setOrderNotes([]), []),
    /** Whether nobody has named it yet. */
    isUnnamed: useCallback((rule: string) => unnamed.has(rule), [unnamed]),
  };
}
