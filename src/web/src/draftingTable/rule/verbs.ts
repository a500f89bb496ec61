import type { Comparand, Effect, Element, Severity } from '../../api/generated';
import { isStateEffect, targetsOf } from './compose';

/** People say it as one: two effects on the same field. */
const asOne: Record<string, [string, string]> = { showAndRequire: ['show', 'require'], resetAndLock: ['reset', 'lock'] };

/** What can be done, the most usual first. */
export const verbs: { value: string; label: string; group: string }[] = [
  { value: 'require', label: 'require', group: 'States' },
  { value: 'makeOptional', label: 'make optional', group: 'States' },
  { value: 'show', label: 'show', group: 'States' },
  { value: 'showAndRequire', label: 'show and require', group: 'States' },
  { value: 'hide', label: 'hide', group: 'States' },
  { value: 'lock', label: 'lock', group: 'States' },
  { value: 'unlock', label: 'unlock', group: 'States' },
  { value: 'set', label: 'set', group: 'Values' },
  { value: 'resetAndLock', label: 'reset and lock', group: 'Values' },
  { value: 'reset', label: 'reset', group: 'Values' },
  { value: 'clear', label: 'empty', group: 'Values' },
  { value: 'calculate', label: 'calculate', group: 'Values' },
  { value: 'narrow', label: 'narrow the choices of', group: 'Values' },
  { value: 'suggest', label: 'suggest setting', group: 'Words' },
  { value: 'message:note', label: 'tell', group: 'Words' },
  { value: 'message:warning', label: 'warn with', group: 'Words' },
  { value: 'message:stopsMoving', label: 'stop moving with', group: 'Words' },
  { value: 'message:stopsSaving', label: 'stop saving with', group: 'Words' },
  { value: 'jumpAhead', label: 'jump ahead to', group: 'The way through the form' },
  { value: 'endForm', label: 'end the form with', group: 'The way through the form' },
];

/** Those of one effect each. */
export const singleVerbs = verbs.filter(({ value }) => !(value in asOne));

/** The verb of an effect, as an option's value. */
export const verbOf = (effect: Effect): string => (effect.kind === 'message' ? `message:${effect.severity}` : effect.kind);

const nothing: Comparand = { kind: 'literal', value: null };

/** Other verbs for the same targets, as far as that goes: most often one effect. */
export const withVerbs = (effect: Effect, verb: string): Effect[] => (asOne[verb] ?? [verb]).map((one) => withVerb(effect, one));

const actsOnNothing = (effect: Effect) => targetsOf(effect).every(({ key }) => key === '');

/**
 * Effects with others in the place of one. Those that were begun with it as one verb act on what it got: on the first that it acts on, and
 * on others that are added while both act on the same.
 */
export function withEffect(effects: Effect[], at: number, next: Effect[]): Effect[] {
  const all = effects.flatMap((effect, i) => (i === at ? next : [effect]));
  const before = effects[at]!;
  const [now] = next;
  if (next.length !== 1 || !now) {
    return all;
  }
  const got = targetsOf(now);
  if (actsOnNothing(before)) {
    const [first] = got;
    return first?.key
      ? all.map((effect) =>
          actsOnNothing(effect) && (isStateEffect(effect) || 'field' in effect) ? onTarget(effect, first) : effect,
        )
      : all;
  }
  const isAdded = got.length > targetsOf(before).length && isStateEffect(now);
  const other = effects[at + 1];
  return isAdded && other && isStateEffect(other) && areOne(before, other)
    ? all.map((effect) => (effect === other ? { ...other, targets: got } : effect))
    : all;
}

/** Whether two effects on the same are called by one verb. */
const areOne = (one: Effect, other: Effect) =>
  Object.values(asOne).some(([first, second]) => first === one.kind && second === other.kind) &&
  JSON.stringify(targetsOf(one)) === JSON.stringify(targetsOf(other));

const onTarget = (effect: Effect, target: Element): Effect =>
  isStateEffect(effect)
    ? { ...effect, targets: [target] }
    : 'field' in effect && target.kind === 'field'
      ? { ...effect, field: target.key }
      : effect;

/** Another verb for the same targets, as far as that goes. */
function withVerb(effect: Effect, verb: string): Effect {
  const targets = targetsOf(effect);
  const field = targets.find(({ kind }) => kind === 'field')?.key ?? '';
  const first: Element = targets[0] ?? { kind: 'field', key: '' };
  const words =
    effect.kind === 'message'
      ? effect.text
      : effect.kind === 'endForm'
        ? effect.note
        : effect.kind === 'suggest'
          ? effect.reason
          : '';
  const given =
    effect.kind === 'set'
      ? effect.to
      : effect.kind === 'calculate'
        ? effect.from
        : effect.kind === 'suggest'
          ? effect.value
          : nothing;
  const [kind, severity] = verb.split(':') as [Effect['kind'], Severity | undefined];
  switch (kind) {
    case 'require':
      return isStateEffect(effect) && effect.kind === 'require' ? effect : { kind, targets, level: 'toMoveOn' };
    case 'hide':
      return { kind, targets, value: effect.kind === 'hide' ? effect.value : 'keep' };
    case 'show':
    case 'makeOptional':
    case 'lock':
    case 'unlock':
      return { kind, targets };
    case 'set':
      return { kind, field, to: given };
    case 'calculate':
      return { kind, field, from: given };
    case 'clear':
    case 'reset':
      return { kind, field };
    case 'narrow':
      return { kind, field, options: effect.kind === 'narrow' ? effect.options : [] };
    case 'message':
      return { kind, severity: severity!, text: words, at: targets[0] ?? null };
    case 'suggest':
      return { kind, field, value: given, reason: words };
    case 'jumpAhead':
      return { kind, to: first };
    case 'endForm':
      return { kind, note: words };
  }
}
