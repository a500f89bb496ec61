import { ActionIcon, Button } from '@mantine/core';
import { IconPlus, IconX } from '@tabler/icons-react';
import type { Condition, Quantifier } from '../../api/generated';
import { Chip } from './Chip';
import { ClauseEditor } from './ClauseEditor';
import { emptyClause, replaced, without } from './compose';
import classes from './OpenRule.module.css';
import { Problems } from './Problems';
import { useWalk } from './walk';
import { useWriting } from './writing';

interface Props {
  condition: Condition;
  place: string;
  onChange: (condition: Condition) => void;
  onRemove?: () => void;
}

const quantifiers: { value: Quantifier; label: string }[] = [
  { value: 'allOf', label: 'all of' },
  { value: 'anyOf', label: 'any of' },
  { value: 'noneOf', label: 'none of' },
];

/** A condition: a clause, or a group with its members below. */
export function ConditionEditor({ condition, place, onChange, onRemove }: Props) {
  const { problems } = useWriting();
  const walk = useWalk();
  if (condition.kind === 'clause') {
    return <ClauseEditor clause={condition} place={place} onChange={onChange} onRemove={onRemove} />;
  }
  const { members } = condition;
  const add = (member: Condition) => {
    onChange({ ...condition, members: [...members, member] });
    walk.toMissing();
  };
  return (
    <div className={classes.group}>
      <div className={classes.line}>
        <Chip
          blank="quantifier"
          label={quantifiers.find((q) => q.value === condition.quantifier)!.label}
          isFurther
          current={condition.quantifier}
          options={() => quantifiers}
          onPick={(quantifier) => onChange({ ...condition, quantifier: quantifier as Quantifier })}
        />
        {onRemove && (
          <ActionIcon variant="subtle" size="sm" aria-label="Delete the group" onClick={onRemove}>
            <IconX size={13} />
          </ActionIcon>
        )}
      </div>
      <div className={classes.members}>
        {members.map((member, i) => (
          <ConditionEditor
            key={i}
            condition={member}
            place={`${place}/members/${i}`}
            onChange={(next) => onChange({ ...condition, members: replaced(members, i, next) })}
            onRemove={() => onChange(members.length === 2 ? members[1 - i]! : { ...condition, members: without(members, i) })}
          />
        ))}
        <Button.Group>
          <Button size="compact-xs" variant="subtle" leftSection={<IconPlus size={12} />} onClick={() => add(emptyClause())}>
            clause
          </Button>
          <Button
            size="compact-xs"
            variant="subtle"
            leftSection={<IconPlus size={12} />}
            onClick={() => add({ kind: 'group', quantifier: 'anyOf', members: [emptyClause()] })}
          >
            group
          </Button>
        </Button.Group>
        <Problems problems={problems} place={`${place}/members`} isExact />
      </div>
    </div>
  );
}
