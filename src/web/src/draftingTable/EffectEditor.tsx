import { ActionIcon } from '@mantine/core';
import { IconX } from '@tabler/icons-react';
import type { Element, HiddenValue, Problem, Requirement, Vocabulary } from '../api/generated';
import { Chip, type ChipOption } from './Chip';
import { replaced, sameElement, without, type StateEffect } from './compose';
import classes from './OpenRule.module.css';
import { Problems } from './Problems';

interface Props {
  effect: StateEffect;
  place: string;
  vocabulary: Vocabulary;
  problems: Problem[];
  onChange: (effect: StateEffect) => void;
  onRemove?: () => void;
}

const verbs: { value: StateEffect['kind']; label: string }[] = [
  { value: 'require', label: 'require' },
  { value: 'makeOptional', label: 'make optional' },
  { value: 'show', label: 'show' },
  { value: 'hide', label: 'hide' },
  { value: 'lock', label: 'lock' },
  { value: 'unlock', label: 'unlock' },
];

const levels: ChipOption[] = [
  { value: 'toMoveOn', label: 'to move on' },
  { value: 'toSave', label: 'to save' },
];

const hiddenValues: ChipOption[] = [
  { value: 'keep', label: 'and keep the value' },
  { value: 'clear', label: 'and clear the value' },
];

const groups = {
  field: 'Fields',
  part: 'Parts of fields',
  section: 'Sections',
  tab: 'Tabs',
  form: 'Forms',
  record: 'The record',
};

/** One effect as chips: what is done, to what, and how. */
export function EffectEditor({ effect, place, vocabulary, problems, onChange, onRemove }: Props) {
  const { targets } = effect;
  const label = (element: Element) => vocabulary.targets.find((t) => sameElement(t.element, element))?.label ?? element.key;
  const options = vocabulary.targets.map((t, i) => ({ value: String(i), label: t.label, group: groups[t.element.kind] }));
  return (
    <div className={classes.effect} data-place={place}>
      <div className={classes.line}>
        <Chip
          blank="verb"
          label={verbs.find((v) => v.value === effect.kind)!.label}
          options={verbs}
          onPick={(kind) => onChange(ofKind(kind as StateEffect['kind'], targets))}
        />
        {[...targets, undefined].map((target, i) => (
          <Chip
            key={i}
            blank="target"
            label={target ? label(target) : i === 0 ? 'choose on what' : '+'}
            isMissing={!target}
            isWrong={target !== undefined && problems.some((p) => p.place === `${place}/targets/${i}`)}
            options={
              target ? [...options, ...(targets.length > 1 ? [{ value: 'remove', label: 'Take this away' }] : [])] : options
            }
            onPick={(picked) => {
              const next = picked === 'remove' ? without(targets, i) : vocabulary.targets[Number(picked)]!.element;
              onChange({
                ...effect,
                targets: Array.isArray(next) ? next : target ? replaced(targets, i, next) : [...targets, next],
              });
            }}
          />
        ))}
        {effect.kind === 'require' && (
          <Chip
            blank="detail"
            label={effect.level === 'toSave' ? 'to save' : 'to move on'}
            options={levels}
            onPick={(level) => onChange({ ...effect, level: level as Requirement })}
          />
        )}
        {effect.kind === 'hide' && (
          <Chip
            blank="detail"
            label={effect.value === 'clear' ? 'and clear the value' : 'and keep the value'}
            options={hiddenValues}
            onPick={(value) => onChange({ ...effect, value: value as HiddenValue })}
          />
        )}
        {onRemove && (
          <ActionIcon variant="subtle" size="xs" aria-label="Take the effect away" onClick={onRemove}>
            <IconX size={13} />
          </ActionIcon>
        )}
      </div>
      <Problems problems={problems} place={place} />
    </div>
  );
}

function ofKind(kind: StateEffect['kind'], targets: Element[]): StateEffect {
  return kind === 'require'
    ? { kind, targets, level: 'toMoveOn' }
    : kind === 'hide'
      ? { kind, targets, value: 'keep' }
      : { kind, targets };
}
