import { ActionIcon, Button } from '@mantine/core';
import { IconX } from '@tabler/icons-react';
import type { Comparand, Effect, EffectRequire, Element, HiddenValue } from '../../api/generated';
import lines from '../../sheet/lines.module.css';
import { Chip, type ChipOption } from './Chip';
import { ComparandChip } from './ComparandChip';
import { isStateEffect, targetsOf, type StateEffect } from './compose';
import { effectMends } from './mends';
import { fieldLabelOf, labelOf, offerOf, targetOptions } from './offers';
import classes from './OpenRule.module.css';
import { Problems } from './Problems';
import { TargetChips } from './TargetChips';
import { TextChip } from './TextChip';
import { verbOf, verbs, withVerbs } from './verbs';
import { useWalk } from './walk';
import { useWriting } from './writing';

/** A verb that does nothing because its targets rest so already, and what can be done about it. */
export interface Idle {
  what: string;
  onOnlyWhile: () => void;
  onRest: () => void;
}

interface Props {
  effect: Effect;
  place: string;
  /** Whether it is so only while the condition holds; undefined where that is nothing to choose. */
  isOnly?: boolean;
  onOnly?: (isOnly: boolean) => void;
  idle?: Idle;
  /** Puts effects, most often one, in the place of this one. */
  onChange: (...effects: Effect[]) => void;
  onRemove?: () => void;
}

const hiddenValues: ChipOption[] = [
  { value: 'keep', label: 'and keep the value' },
  { value: 'clear', label: 'and clear the value' },
  { value: 'reset', label: 'and reset the value' },
];

/** One effect as chips: what is done, to what, and how. */
export function EffectEditor({ effect, place, isOnly, onOnly, idle, onChange, onRemove }: Props) {
  const writing = useWriting();
  const walk = useWalk();
  const { problems } = writing;
  const isBlank = 'targets' in effect ? effect.targets.length === 0 : 'field' in effect && effect.field === '';
  return (
    <div className={classes.effect} data-place={place}>
      <div className={classes.line}>
        <Chip
          blank="verb"
          label={verbs.find(({ value }) => value === verbOf(effect))!.label}
          current={verbOf(effect)}
          options={() => verbs}
          onPick={(verb) => onChange(...withVerbs(effect, verb))}
        />
        {isStateEffect(effect) ? (
          <StateBlanks effect={effect} place={place} onChange={onChange} />
        ) : (
          <ValueBlanks effect={effect} place={place} onChange={onChange} />
        )}
        {isOnly !== undefined && (
          <Chip
            blank="detail"
            label={isOnly ? 'only while so' : 'while so'}
            current={isOnly ? 'only' : 'then'}
            options={() => [
              { value: 'then', label: 'while so', note: 'and else as the others say' },
              { value: 'only', label: 'only while so', note: 'otherwise the opposite' },
            ]}
            onPick={(picked) => onOnly!(picked === 'only')}
          />
        )}
        {onRemove && (
          <ActionIcon variant="subtle" size="sm" aria-label="Delete the effect" onClick={onRemove}>
            <IconX size={13} />
          </ActionIcon>
        )}
      </div>
      {idle && (
        <div className={`${lines.wrong} ${classes.line}`} role="note">
          {idle.what}
          <Button size="compact-xs" variant="default" onClick={() => (idle.onOnlyWhile(), walk.to('detail'))}>
            Only while the condition holds
          </Button>
          <Button size="compact-xs" variant="default" onClick={() => (idle.onRest(), walk.to('verb'))}>
            Change how it rests
          </Button>
        </div>
      )}
      {!isBlank && (
        <Problems
          problems={problems}
          place={place}
          mendsOf={(problem) => effectMends(effect, place, problem, writing, onChange, onRemove)}
        />
      )}
    </div>
  );
}

function StateBlanks({ effect, place, onChange }: { effect: StateEffect; place: string; onChange: (effect: Effect) => void }) {
  return (
    <>
      <TargetChips targets={effect.targets} place={place} onChange={(targets) => onChange({ ...effect, targets })} />
      {effect.kind === 'require' && <RequireBlanks effect={effect} onChange={onChange} />}
      {effect.kind === 'hide' && (
        <Chip
          blank="detail"
          label={hiddenValues.find(({ value }) => value === (effect.value ?? 'keep'))!.label}
          current={effect.value ?? 'keep'}
          options={() => hiddenValues}
          onPick={(value) => onChange({ ...effect, value: value as HiddenValue })}
        />
      )}
    </>
  );
}

/** How strongly something is required: to save, for any move or for named ones, with words of one's own. */
function RequireBlanks({ effect, onChange }: { effect: EffectRequire; onChange: (effect: Effect) => void }) {
  const { type } = useWriting();
  const moves = [
    ...new Map(type.workflows.flatMap((workflow) => workflow.moves).map((move) => [move.key, move.label])).entries(),
  ];
  const named = effect.moves ?? [];
  const isForMoves = effect.level !== 'toSave' && named.length > 0;
  const label =
    effect.level === 'toSave'
      ? 'to save'
      : isForMoves
        ? `for ${named.map((key) => moves.find(([move]) => move === key)?.[1] ?? key).join(' or ')}`
        : 'to move on';
  const toggle = (move: string) =>
    onChange({
      ...effect,
      level: 'toMoveOn',
      moves: named.includes(move) ? named.filter((one) => one !== move) : [...named, move],
    });
  return (
    <>
      <Chip
        blank="detail"
        label={label}
        options={() => [
          { value: 'toMoveOn', label: 'to move on' },
          { value: 'toSave', label: 'to save' },
          ...moves.map(([key, move]) => ({ value: `move:${key}`, label: move, group: 'Only for the move' })),
        ]}
        current={isForMoves ? undefined : effect.level}
        chosen={named.map((move) => `move:${move}`)}
        onPick={(picked) =>
          picked.startsWith('move:')
            ? onChange({ ...effect, level: 'toMoveOn', moves: [picked.slice('move:'.length)] })
            : onChange({ ...effect, level: picked as EffectRequire['level'], moves: [] })
        }
        onToggle={(picked) => picked.startsWith('move:') && toggle(picked.slice('move:'.length))}
      />
      <TextChip
        blank="message"
        text={effect.message ?? ''}
        placeholder="own words"
        isFurther
        onChange={(message) => onChange({ ...effect, message: message || null })}
      />
    </>
  );
}

function ValueBlanks({
  effect,
  place,
  onChange,
}: {
  effect: Exclude<Effect, StateEffect>;
  place: string;
  onChange: (effect: Effect) => void;
}) {
  switch (effect.kind) {
    case 'set':
      return (
        <Given
          field={effect.field}
          word="to"
          value={effect.to}
          place={`${place}/to`}
          onChange={(field, to) => onChange({ ...effect, field, to })}
        />
      );
    case 'calculate':
      return (
        <Given
          field={effect.field}
          word="as"
          value={effect.from}
          place={`${place}/from`}
          onChange={(field, from) => onChange({ ...effect, field, from })}
        />
      );
    case 'clear':
    case 'reset':
      return <FieldChip field={effect.field} onPick={(field) => onChange({ ...effect, field })} />;
    case 'narrow':
      return (
        <NarrowBlanks
          field={effect.field}
          options={effect.options}
          onChange={(field, options) => onChange({ ...effect, field, options })}
        />
      );
    case 'suggest':
      return (
        <>
          <Given
            field={effect.field}
            word="to"
            value={effect.value}
            place={`${place}/value`}
            onChange={(field, value) => onChange({ ...effect, field, value })}
          />
          <em>because</em>
          <TextChip
            blank="reason"
            text={effect.reason}
            placeholder="say why"
            onChange={(reason) => onChange({ ...effect, reason })}
          />
        </>
      );
    case 'message':
      return (
        <>
          <TextChip
            blank="message"
            text={effect.text}
            placeholder="say what"
            onChange={(text) => onChange({ ...effect, text })}
          />
          <em>at</em>
          <ElementChip
            element={effect.at ?? undefined}
            placeholder="the top of the form"
            only={({ kind }) => kind !== 'record'}
            nothing="the top of the form"
            onPick={(at) => onChange({ ...effect, at: at ?? null })}
          />
        </>
      );
    case 'jumpAhead':
      return (
        <ElementChip
          element={targetsOf(effect)[0] ?? (effect.to.key ? effect.to : undefined)}
          placeholder="choose where to"
          only={({ kind }) => kind === 'field' || kind === 'section' || kind === 'tab'}
          onPick={(to) => to && onChange({ ...effect, to })}
        />
      );
    case 'endForm':
      return (
        <TextChip
          blank="note"
          text={effect.note}
          placeholder="say why it ends"
          onChange={(note) => onChange({ ...effect, note })}
        />
      );
  }
}

function FieldChip({ field, onPick, isList = false }: { field: string; onPick: (field: string) => void; isList?: boolean }) {
  const writing = useWriting();
  const { type } = writing;
  const offersChoices = (key: string) => 'options' in (type.fields.find((one) => one.key === key)?.type ?? {});
  return (
    <Chip
      blank="target"
      label={fieldLabelOf(writing, field) || 'choose a field'}
      isMissing={field === ''}
      options={() => targetOptions(writing, ({ kind, key }) => kind === 'field' && (!isList || offersChoices(key)))}
      onPick={(value) => onPick((JSON.parse(value) as Element).key)}
    />
  );
}

function Given({
  field,
  word,
  value,
  place,
  onChange,
}: {
  field: string;
  word: string;
  value: Comparand;
  place: string;
  onChange: (field: string, value: Comparand) => void;
}) {
  const writing = useWriting();
  const offer = field === '' ? undefined : offerOf(writing, { kind: 'field', field });
  const isBlank = value.kind === 'literal' && value.value === null;
  const wrong = writing.problems.some((problem) => problem.place.startsWith(place));
  return (
    <>
      <FieldChip field={field} onPick={(next) => onChange(next, next === field ? value : { kind: 'literal', value: null })} />
      <em>{word}</em>
      {offer && (
        <ComparandChip
          key={field}
          offer={offer}
          comparand={isBlank ? undefined : value}
          isWrong={!isBlank && wrong}
          onPick={(next) => onChange(field, next)}
        />
      )}
    </>
  );
}

function NarrowBlanks({
  field,
  options,
  onChange,
}: {
  field: string;
  options: string[];
  onChange: (field: string, options: string[]) => void;
}) {
  const { type } = useWriting();
  const fieldType = type.fields.find(({ key }) => key === field)?.type;
  const all = fieldType && 'options' in fieldType ? fieldType.options : [];
  const toggle = (key: string) =>
    onChange(field, options.includes(key) ? options.filter((one) => one !== key) : [...options, key]);
  return (
    <>
      <FieldChip field={field} isList onPick={(next) => onChange(next, next === field ? options : [])} />
      <em>to</em>
      {field !== '' && (
        <Chip
          blank="choices"
          label={
            options.length === 0 ? 'nothing' : options.map((key) => all.find((one) => one.key === key)?.label ?? key).join(' or ')
          }
          options={() =>
            all.filter(({ key, retired }) => !retired || options.includes(key)).map(({ key, label }) => ({ value: key, label }))
          }
          chosen={options}
          onToggle={toggle}
          onPick={toggle}
        />
      )}
    </>
  );
}

function ElementChip({
  element,
  placeholder,
  only,
  nothing,
  onPick,
}: {
  element: Element | undefined;
  placeholder: string;
  only: (element: Element) => boolean;
  /** What picks no element; undefined where one has to be picked. */
  nothing?: string;
  onPick: (element: Element | undefined) => void;
}) {
  const writing = useWriting();
  return (
    <Chip
      blank="target"
      label={element?.key ? labelOf(writing, element) : placeholder}
      isMissing={!element?.key && !nothing}
      isFurther={nothing !== undefined}
      options={() => [...(nothing ? [{ value: '', label: nothing }] : []), ...targetOptions(writing, only)]}
      onPick={(value) => onPick(value === '' ? undefined : (JSON.parse(value) as Element))}
    />
  );
}
