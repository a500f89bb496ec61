import { Button, Select, Text } from '@mantine/core';
import type { RecordType, Rest } from '../api/generated';
import { withRest } from '../draftingTable/rule/resting';
import { placed, retired, withoutField } from './edits';
import classes from './Fields.module.css';
import type { FieldRow } from './FieldTable';

interface Props {
  type: RecordType;
  /** Those that are ticked. */
  rows: FieldRow[];
  heldBy: (key: string) => number | undefined;
  /** Whether the edition in force has it. */
  isHeld: (key: string) => boolean;
  onChange: (type: RecordType) => void;
  onAll: () => void;
  onDone: () => void;
}

const rests: { value: string; label: string; rest: Partial<Rest> }[] = [
  { value: 'shown', label: 'shown', rest: { visibility: 'shown' } },
  { value: 'hidden', label: 'hidden', rest: { visibility: 'hidden' } },
  { value: 'optional', label: 'optional', rest: { requirement: 'optional' } },
  { value: 'toMoveOn', label: 'required to move on', rest: { requirement: 'toMoveOn' } },
  { value: 'toSave', label: 'required to save', rest: { requirement: 'toSave' } },
  { value: 'open', label: 'open', rest: { access: 'open' } },
  { value: 'locked', label: 'locked', rest: { access: 'locked' } },
];

/** What is done to several fields at once; one edit, to be undone as one. */
export function SeveralFields({ type, rows, heldBy, isHeld, onChange, onAll, onDone }: Props) {
  const keys = rows.map(({ field }) => field.key);
  const each = (change: (type: RecordType, key: string) => RecordType) => onChange(keys.reduce(change, type));
  const stay = rows.filter(
    ({ field, usage }) =>
      usage.rules.length + usage.examples.length > 0 ||
      field.key === type.titleField ||
      (isHeld(field.key) && heldBy(field.key) !== 0),
  );
  const sections = type.forms[0]?.tabs.flatMap((tab) =>
    tab.sections.map((section) => ({ value: section.key, label: `${tab.label} › ${section.label}` })),
  );
  return (
    <div className={classes.several} role="group" aria-label="The ticked fields">
      <Text size="sm" fw={600}>
        {keys.length === 1 ? 'One field' : `${keys.length} fields`}:
      </Text>
      <Select
        aria-label="How the ticked fields are at rest"
        placeholder="at rest…"
        w={150}
        data={rests.map(({ value, label }) => ({ value, label }))}
        value={null}
        onChange={(value) => {
          const rest = rests.find((one) => one.value === value)?.rest;
          if (rest) {
            each((all, key) => withRest(all, { kind: 'field', key }, rest));
          }
        }}
      />
      <Select
        aria-label="Where the ticked fields stand"
        placeholder={`on ${type.forms[0]?.label ?? 'the form'}…`}
        w={190}
        data={[{ value: '', label: 'nowhere' }, ...(sections ?? [])]}
        value={null}
        onChange={(section) => section !== null && each((all, key) => placed(all, key, section || null))}
      />
      <Button
        variant="default"
        disabled={keys.includes(type.titleField)}
        onClick={() => each((all, key) => retired(all, key, !rows.every(({ field }) => field.retired)))}
      >
        {rows.every(({ field }) => field.retired) ? 'Bring back' : 'Retire'}
      </Button>
      <Button
        variant="default"
        disabled={stay.length > 0}
        title={stay.length > 0 ? `Something uses or holds ${stay.map(({ field }) => field.label).join(', ')}.` : undefined}
        onClick={() => {
          each(withoutField);
          onDone();
        }}
      >
        Delete
      </Button>
      <Button variant="subtle" onClick={onAll}>
        All that are listed
      </Button>
      <Button variant="subtle" onClick={onDone}>
        None of them
      </Button>
    </div>
  );
}
