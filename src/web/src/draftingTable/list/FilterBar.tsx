import { ActionIcon, Button, Checkbox, Popover, SegmentedControl, Select, TextInput, UnstyledButton } from '@mantine/core';
import { IconAdjustmentsHorizontal, IconSearch, IconX } from '@tabler/icons-react';
import type { RefObject } from 'react';
import type { Element, Vocabulary } from '../../api/generated';
import { sameElement } from '../rule/compose';
import { singleVerbs } from '../rule/verbs';
import classes from './FilterBar.module.css';
import { everything, type RuleFilter } from './ruleFilter';

interface Props {
  filter: RuleFilter;
  vocabulary: Vocabulary | undefined;
  stages: { key: string; label: string }[];
  /** Accounts of those who changed rules, with their names. */
  people: { value: string; label: string }[];
  /** How many rules are found; undefined while all are shown. */
  found: number | undefined;
  input: RefObject<HTMLInputElement | null>;
  onChange: (filter: RuleFilter) => void;
}

/** Looks for rules: by words at once, by everything else in a list of its own; what narrows the list stands below, each to be taken away. */
export function FilterBar({ filter, vocabulary, stages, people, found, input, onChange }: Props) {
  const set = (part: Partial<RuleFilter>) => onChange({ ...filter, ...part });
  const elements = (vocabulary?.targets ?? []).filter(({ element }) => element.kind !== 'record');
  const labelOf = (element: Element) => elements.find((one) => sameElement(one.element, element))?.label ?? element.key;
  const marks: [string, Partial<RuleFilter>][] = [
    ...(filter.element
      ? [
          [`${roles[filter.role]} ${labelOf(filter.element)}`, { element: undefined, role: 'either' }] as [
            string,
            Partial<RuleFilter>,
          ],
        ]
      : []),
    ...(filter.does ? [mark(`does: ${singleVerbs.find(({ value }) => value === filter.does)?.label}`, { does: undefined })] : []),
    ...(filter.stage ? [mark(`names ${stages.find(({ key }) => key === filter.stage)?.label}`, { stage: undefined })] : []),
    ...(filter.by ? [mark(`last changed by ${people.find(({ value }) => value === filter.by)?.label}`, { by: undefined })] : []),
    ...(filter.isOn === undefined ? [] : [mark(filter.isOn ? 'on' : 'off', { isOn: undefined })]),
    ...(filter.isInForce ? [mark('in force now', { isInForce: false })] : []),
    ...(filter.hasProblems ? [mark('with problems', { hasProblems: false })] : []),
    ...(filter.isChanged ? [mark('changed in this draft', { isChanged: false })] : []),
  ];
  return (
    <search className={classes.bar} aria-label="Find rules">
      <div className={classes.line}>
        <TextInput
          ref={input}
          className={classes.words}
          aria-label="Find rules by words"
          placeholder="Find rules"
          leftSection={<IconSearch size={14} />}
          value={filter.words}
          onChange={(event) => set({ words: event.currentTarget.value })}
          onKeyDown={(event) => event.key === 'Escape' && (set({ words: '' }), event.currentTarget.blur())}
        />
        <Popover position="bottom-end" trapFocus returnFocus withinPortal>
          <Popover.Target>
            <ActionIcon variant="default" size={30} aria-label="Find rules by more than words">
              <IconAdjustmentsHorizontal size={16} />
            </ActionIcon>
          </Popover.Target>
          <Popover.Dropdown className={classes.more} aria-label="Find rules by more than words">
            <Select
              label="Element"
              placeholder="any"
              searchable
              clearable
              openOnFocus={false}
              limit={60}
              comboboxProps={{ withinPortal: false }}
              data={elements.map(({ element, label }) => ({ value: JSON.stringify(element), label }))}
              value={filter.element ? JSON.stringify(filter.element) : null}
              onChange={(value) => set({ element: value ? (JSON.parse(value) as Element) : undefined })}
            />
            <SegmentedControl
              size="xs"
              fullWidth
              aria-label="What the rule has to do with the element"
              disabled={!filter.element}
              data={[
                { value: 'either', label: 'either' },
                { value: 'driven', label: 'acts on it' },
                { value: 'driving', label: 'looks at it' },
              ]}
              value={filter.role}
              onChange={(role) => set({ role: role as RuleFilter['role'] })}
            />
            <Select
              label="What it does"
              placeholder="anything"
              clearable
              comboboxProps={{ withinPortal: false }}
              data={singleVerbs.map(({ value, label }) => ({ value, label }))}
              value={filter.does ?? null}
              onChange={(does) => set({ does: does ?? undefined })}
            />
            <Select
              label="Stage that it names"
              placeholder="any"
              clearable
              comboboxProps={{ withinPortal: false }}
              data={stages.map(({ key, label }) => ({ value: key, label }))}
              value={filter.stage ?? null}
              onChange={(stage) => set({ stage: stage ?? undefined })}
            />
            <Select
              label="Last changed by"
              placeholder="anybody"
              clearable
              comboboxProps={{ withinPortal: false }}
              data={people}
              value={filter.by ?? null}
              onChange={(by) => set({ by: by ?? undefined })}
            />
            <SegmentedControl
              size="xs"
              fullWidth
              aria-label="On or off"
              data={[
                { value: 'all', label: 'on and off' },
                { value: 'on', label: 'on' },
                { value: 'off', label: 'off' },
              ]}
              value={filter.isOn === undefined ? 'all' : filter.isOn ? 'on' : 'off'}
              onChange={(value) => set({ isOn: value === 'all' ? undefined : value === 'on' })}
            />
            <Checkbox
              size="sm"
              label="in force now"
              checked={filter.isInForce}
              onChange={(event) => set({ isInForce: event.currentTarget.checked })}
            />
            <Checkbox
              size="sm"
              label="with problems"
              checked={filter.hasProblems}
              onChange={(event) => set({ hasProblems: event.currentTarget.checked })}
            />
            <Checkbox
              size="sm"
              label="changed in this draft"
              checked={filter.isChanged}
              onChange={(event) => set({ isChanged: event.currentTarget.checked })}
            />
          </Popover.Dropdown>
        </Popover>
      </div>
      {found !== undefined && (
        <div className={classes.marks}>
          <span role="status">{found === 1 ? '1 rule' : `${found} rules`}</span>
          {marks.map(([label, without]) => (
            <UnstyledButton key={label} className={classes.mark} aria-label={`Not only: ${label}`} onClick={() => set(without)}>
              {label} <IconX size={11} aria-hidden />
            </UnstyledButton>
          ))}
          <Button size="compact-xs" variant="subtle" onClick={() => onChange(everything)}>
            Show all
          </Button>
        </div>
      )}
    </search>
  );
}

const roles: Record<RuleFilter['role'], string> = { either: 'about', driven: 'acts on', driving: 'looks at' };

const mark = (label: string, without: Partial<RuleFilter>): [string, Partial<RuleFilter>] => [label, without];
