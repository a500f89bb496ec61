import { ActionIcon, Button } from '@mantine/core';
import { IconPlus, IconX } from '@tabler/icons-react';
import type { ClauseExplanation, Condition, Problem, Quantifier, Vocabulary } from '../api/generated';
import { Chip } from './Chip';
import { ClauseEditor } from './ClauseEditor';
import { emptyClause, replaced, without } from './compose';
import classes from './OpenRule.module.css';
import { Problems } from './Problems';

interface Props {
  condition: Condition;
  place: string;
  vocabulary: Vocabulary;
  problems: Problem[];
  truths: Map<string, ClauseExplanation>;
  onChange: (condition: Condition) => void;
  onRemove?: () => void;
}

const quantifiers: { value: Quantifier; label: string }[] = [
  { value: 'allOf', label: 'all of' },
  { value: 'anyOf', label: 'any of' },
  { value: 'noneOf', label: 'none of' },
];

/** A condition: a clause, or a group with its members below. */
export function ConditionEditor({ condition, place, onChange, onRemove, ...shared }: Props) {
  if (condition.kind === 'clause') {
    return <ClauseEditor clause={condition} place={place} onChange={onChange} onRemove={onRemove} {...shared} />;
  }
  const { members } = condition;
  return (
    <div className={classes.group}>
      <div className={classes.line}>
        <Chip
          blank="quantifier"
          label={quantifiers.find((q) => q.value === condition.quantifier)!.label}
          options={quantifiers}
          onPick={(quantifier) => onChange({ ...condition, quantifier: quantifier as Quantifier })}
        />
        {onRemove && (
          <ActionIcon variant="subtle" size="xs" aria-label="Take the group away" onClick={onRemove}>
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
            {...shared}
          />
        ))}
        <Button.Group>
          <Button
            size="compact-xs"
            variant="subtle"
            leftSection={<IconPlus size={12} />}
            onClick={() => onChange({ ...condition, members: [...members, emptyClause()] })}
          >
            clause
          </Button>
          <Button
            size="compact-xs"
            variant="subtle"
            leftSection={<IconPlus size={12} />}
            onClick={() =>
              onChange({
                ...condition,
                members: [...members, { kind: 'group', quantifier: 'anyOf', members: [emptyClause(), emptyClause()] }],
              })
            }
          >
            group
          </Button>
        </Button.Group>
        <Problems problems={shared.problems} place={`${place}/members`} isExact />
      </div>
    </div>
  );
}
