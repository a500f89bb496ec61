import { useSyncExternalStore } from 'react';
import type { Element, ElementKind, Rule } from '../../api/generated';
import { allTargets } from '../rule/compose';

/** A rule that touches an element. */
export interface Toucher {
  place: number;
  key: string;
  name: string;
}

const nobody: Toucher[] = [];

/** Which rules touch which element. An element whose rules are the same as before keeps its list, so that nothing is drawn anew. */
export class Touching {
  private touchers = new Map<string, Toucher[]>();
  private readonly listeners = new Set<() => void>();
  /** The names of all elements that some rule touches, to notice when that is another set. */
  elements = '';

  /** Key of the rule that is open: its balloons are marked, and no other is drawn anew. */
  private chosen: string | undefined;
  /** What rules skip on the form, by their keys: no target of theirs names it. */
  private skipped = new Map<string, Element[]>();

  constructor(rules: Rule[]) {
    this.take(rules);
  }

  subscribe = (listener: () => void) => {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  };

  isChosen = (rule: string): boolean => this.chosen === rule;

  choose(rule: string | undefined) {
    this.chosen = rule;
    this.listeners.forEach((listener) => listener());
  }

  of = (kind: ElementKind, key: string): Toucher[] => this.touchers.get(`${kind}:${key}`) ?? nobody;

  /** Takes over other rules, and what they skip where that is known, and tells. */
  take(rules: Rule[], skipped = this.skipped) {
    this.skipped = skipped;
    const next = new Map<string, Toucher[]>();
    rules.forEach((rule, place) =>
      new Set([...allTargets(rule), ...(skipped.get(rule.key) ?? [])].map((t) => `${t.kind}:${t.key}`)).forEach((element) => {
        const touchers = next.get(element);
        const toucher = { place, key: rule.key, name: rule.name };
        if (touchers) {
          touchers.push(toucher);
        } else {
          next.set(element, [toucher]);
        }
      }),
    );
    next.forEach((touchers, element) => {
      const before = this.touchers.get(element);
      if (before?.length === touchers.length && touchers.every((t, i) => same(t, before[i]!))) {
        next.set(element, before);
      }
    });
    this.touchers = next;
    this.elements = [...next.keys()].sort().join(' ');
    this.listeners.forEach((listener) => listener());
  }
}

const same = (one: Toucher, other: Toucher) => one.place === other.place && one.key === other.key && one.name === other.name;

/** The rules that touch an element; draws anew when those are others. */
export const useTouchers = (touching: Touching, kind: ElementKind, key: string): Toucher[] =>
  useSyncExternalStore(touching.subscribe, () => touching.of(kind, key));

/** The names of all elements that some rule touches; draws anew when that is another set. */
export const useElementsTouched = (touching: Touching): string =>
  useSyncExternalStore(touching.subscribe, () => touching.elements);

/** Whether the rule is the open one; draws anew when that changes. */
export const useIsChosen = (touching: Touching, rule: string): boolean =>
  useSyncExternalStore(touching.subscribe, () => touching.isChosen(rule));
