import type { Effect, Element, RecordType, Rest, Rule } from '../../api/generated';
import { isStateEffect, sameElement } from './compose';

/** How an element is when no rule speaks. */
export function restOf(type: RecordType, { kind, key }: Element): Rest | null | undefined {
  const tabs = type.forms.flatMap((form) => form.tabs);
  switch (kind) {
    case 'field':
      return type.fields.find((field) => field.key === key)?.rest;
    case 'section':
      return tabs.flatMap((tab) => tab.sections).find((section) => section.key === key)?.rest;
    case 'tab':
      return tabs.find((tab) => tab.key === key)?.rest;
    case 'form':
      return type.forms.find((form) => form.key === key)?.rest;
    default:
      return undefined;
  }
}

/** The record type where that element rests otherwise. */
export function withRest(type: RecordType, element: Element, change: Partial<Rest>): RecordType {
  const changed = <T extends { key: string; rest?: Rest | null }>(kind: Element['kind'], one: T): T =>
    element.kind === kind && one.key === element.key ? { ...one, rest: { ...one.rest, ...change } as Rest } : one;
  return {
    ...type,
    fields: type.fields.map((field) => changed('field', field)),
    forms: type.forms.map((form) => ({
      ...changed('form', form),
      tabs: form.tabs.map((tab) => ({
        ...changed('tab', tab),
        sections: tab.sections.map((section) => changed('section', section)),
      })),
    })),
  };
}

/** What makes an effect worth having: the opposite at rest, or another rule's. */
const against: Partial<
  Record<
    Effect['kind'],
    { verb: Effect['kind']; rests: (rest: Rest | null | undefined) => boolean; what: string; rest: Partial<Rest> }
  >
> = {
  show: {
    verb: 'hide',
    rests: (rest) => (rest?.visibility ?? 'shown') === 'shown',
    what: 'shown at rest already, so showing does nothing.',
    rest: { visibility: 'hidden' },
  },
  unlock: {
    verb: 'lock',
    rests: (rest) => (rest?.access ?? 'open') === 'open',
    what: 'open at rest already, so unlocking does nothing.',
    rest: { access: 'locked' },
  },
};

/** Why an effect does nothing, and how its targets would have to rest; undefined where it does something. */
export function idleness(type: RecordType, effect: Effect, others: Rule[]): { what: string; rest: Partial<Rest> } | undefined {
  const known = against[effect.kind];
  if (!known || !isStateEffect(effect) || effect.targets.length === 0) {
    return undefined;
  }
  const isNeeded = (target: Element) =>
    !known.rests(restOf(type, target)) ||
    target.kind === 'part' ||
    others
      .flatMap((rule) => rule.cases ?? [])
      .flatMap((aCase) => aCase.effects)
      .some(
        (other) => other.kind === known.verb && isStateEffect(other) && other.targets.some((one) => sameElement(one, target)),
      );
  return effect.targets.some(isNeeded) ? undefined : { what: `It is ${known.what}`, rest: known.rest };
}
