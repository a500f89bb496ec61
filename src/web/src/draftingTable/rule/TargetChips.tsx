import type { Element } from '../../api/generated';
import { Chip } from './Chip';
import { replaced, sameElement, without } from './compose';
import { labelOf, targetOptions } from './offers';
import { useWriting } from './writing';

interface Props {
  targets: Element[];
  place: string;
  onChange: (targets: Element[]) => void;
}

const removal = 'remove';

/** What an effect acts on: a chip for each element, and one for the next. Several can be ticked at once. */
export function TargetChips({ targets, place, onChange }: Props) {
  const writing = useWriting();
  const toggle = (value: string) => {
    const element = JSON.parse(value) as Element;
    const at = targets.findIndex((target) => sameElement(target, element));
    onChange(at >= 0 ? without(targets, at) : [...targets, element]);
  };
  return [...targets, undefined].map((target, i) => (
    <Chip
      key={i}
      blank="target"
      label={target ? labelOf(writing, target) : i === 0 ? 'choose on what' : '+'}
      spoken={target || i === 0 ? undefined : 'another'}
      isMissing={!target && i === 0}
      isFurther={!target && i > 0}
      current={target && JSON.stringify({ kind: target.kind, key: target.key })}
      isWrong={target !== undefined && writing.problems.some((problem) => problem.place === `${place}/targets/${i}`)}
      options={() => [
        ...targetOptions(writing),
        ...(target && targets.length > 1 ? [{ value: removal, label: 'Delete this' }] : []),
      ]}
      chosen={targets.map((one) => JSON.stringify({ kind: one.kind, key: one.key }))}
      onToggle={toggle}
      onPick={(value) => {
        if (value === removal) {
          onChange(without(targets, i));
          return;
        }
        const element = JSON.parse(value) as Element;
        if (!targets.some((other) => sameElement(other, element))) {
          onChange(target ? replaced(targets, i, element) : [...targets, element]);
        }
      }}
    />
  ));
}
