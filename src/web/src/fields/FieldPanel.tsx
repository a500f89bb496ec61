import { ActionIcon, Button, Group, Select, Stack, Text, Title } from '@mantine/core';
import { IconX } from '@tabler/icons-react';
import { useState } from 'react';
import type { Definition, Field, HoldingsView, Problem, RecordType, Reshape } from '../api/generated';
import { Resting } from '../draftingTable/element/Resting';
import { withRest } from '../draftingTable/rule/resting';
import { Typed } from '../frame/Typed';
import { Consequences } from '../publication/Consequences';
import { useConsequences } from '../publication/useConsequences';
import lines from '../sheet/lines.module.css';
import { DefaultInput } from './DefaultInput';
import { placed, retired, sectionOf, withField, withoutField, withType } from './edits';
import { fieldKinds, optionsFrom } from './fieldKinds';
import classes from './Fields.module.css';
import { HeldChoices } from './HeldChoices';
import { LinkedFields } from './LinkedFields';
import { TypeSettings } from './TypeSettings';
import type { Usage } from './usage';
import { recordsOf } from './useHoldings';

interface Props {
  definition: Definition;
  field: Field;
  usage: Usage;
  mistakes: Problem[];
  /** The field as the edition in force has it: records may hold values of it. Undefined for one that only the draft has. */
  held: Field | undefined;
  /** How many records hold what; undefined until they have been counted. */
  holdings: HoldingsView | undefined;
  onChange: (type: RecordType) => void;
  /** Makes a change that rules, examples, forms and records follow. */
  onReshape: (reshape: Reshape) => Promise<void>;
  onClose: () => void;
}

const mostChoices = 60;

type Options = { key: string; label: string; retired?: boolean }[];

/** Everything that one field is. */
export function FieldPanel({ definition, field, usage, mistakes, held, holdings, onChange, onReshape, onClose }: Props) {
  const { recordType: type } = definition;
  /** Where a link leads that was drawn or turned a moment ago. */
  const [newLink, setNewLink] = useState<string>();
  const consequences = useConsequences(type, held !== undefined && mistakes.length === 0);
  const mine = consequences?.consequences.filter((one) => one.field === field.key) ?? [];
  const records = held && (holdings ? (holdings.fields[held.key] ?? 0) : undefined);
  const change = (part: Partial<Field>) => onChange(withField(type, field.key, part));
  const sections = type.forms[0]?.tabs.flatMap((tab) =>
    tab.sections.map((section) => ({ value: section.key, label: `${tab.label} › ${section.label}` })),
  );
  function changeOptions(next: (options: Options) => Options) {
    if (field.type.kind === 'choice' || field.type.kind === 'choices') {
      change({ type: { ...field.type, options: next(field.type.options) } });
    }
  }
  /** Choices to begin with: what records hold as text, the most frequent first. */
  function withHeldTexts(next: Field['type']): Field['type'] {
    const texts = held?.type.kind === 'text' ? Object.entries(holdings?.choices[held.key] ?? {}) : [];
    return next.kind !== 'choice' && next.kind !== 'choices'
      ? next
      : {
          ...next,
          options: optionsFrom(
            texts
              .toSorted(([, one], [, other]) => other - one)
              .slice(0, mostChoices)
              .map(([text]) => text)
              .join('\n'),
            [],
            false,
          ),
        };
  }
  const isUsed = usage.rules.length > 0 || usage.examples.length > 0 || field.key === type.titleField;
  return (
    <section className={classes.panel} aria-label={`The field ${field.label}`}>
      <div className={classes.panelHead}>
        <Title order={2} className={classes.heading}>
          {field.label || '(no label)'}
        </Title>
        <ActionIcon variant="subtle" size="md" aria-label="Close" onClick={onClose}>
          <IconX size={16} />
        </ActionIcon>
      </div>
      <Stack gap="sm" className={classes.panelBody}>
        {mistakes.map((mistake) => (
          <Text key={mistake.place + mistake.what} size="sm" className={lines.wrong} role="alert">
            {mistake.what} {mistake.mend}
          </Text>
        ))}
        <Typed label="Label" value={field.label} onDone={(label) => label && change({ label })} />
        <Typed label="Help" value={field.help ?? ''} onDone={(help) => change({ help: help || null })} />
        <Select
          label="Type"
          allowDeselect={false}
          // All of them at once: what stands further down is not thought of.
          maxDropdownHeight={480}
          data={fieldKinds.map(({ value, label }) => ({ value, label }))}
          value={field.type.kind}
          onChange={(kind) => {
            const { first } = fieldKinds.find(({ value }) => value === kind)!;
            const next = held?.type.kind === kind ? held.type : withHeldTexts(first);
            onChange(withType(definition, field.key, next).recordType);
          }}
        />
        {mine.length > 0 && (
          <section aria-label="What becomes of the records">
            <Text size="sm" fw={600}>
              With the next edition
            </Text>
            <Consequences consequences={mine} />
          </section>
        )}
        <TypeSettings
          type={field.type}
          isHeld={held !== undefined}
          onChange={(next) => {
            setNewLink(next.kind === 'link' ? next.recordType : undefined);
            onChange(withType(definition, field.key, next).recordType);
          }}
        />
        {field.type.kind === 'link' && field.type.recordType && (
          <LinkedFields
            key={field.type.recordType}
            type={type}
            to={field.type.recordType}
            isNew={newLink === field.type.recordType}
            onChange={onChange}
          />
        )}
        {held && (field.type.kind === 'choice' || field.type.kind === 'choices') && (
          <HeldChoices
            field={field}
            options={field.type.options}
            counts={holdings && (holdings.choices[held.key] ?? {})}
            onMerge={(from, to) => void onReshape({ kind: 'choice', field: field.key, from, to })}
            onOffer={(key, isOffered) =>
              changeOptions((options) => options.map((one) => (one.key === key ? { ...one, retired: !isOffered } : one)))
            }
            onDrop={(key) => changeOptions((options) => options.filter((one) => one.key !== key))}
          />
        )}
        <DefaultInput field={field} onChange={(next) => change({ default: next })} />
        <Resting
          type={type}
          element={{ kind: 'field', key: field.key }}
          onRest={(rest) => onChange(withRest(type, { kind: 'field', key: field.key }, rest))}
        />
        <Select
          label={`Stands on ${type.forms[0]?.label ?? 'no form'}`}
          placeholder="nowhere: nobody can fill it in there"
          clearable
          data={sections}
          value={sectionOf(type, field.key)}
          onChange={(section) => onChange(placed(type, field.key, section))}
        />
        <Typed
          label="Key"
          description="What files and the interface for programs call it. Rules, examples, forms and records follow."
          value={field.key}
          onDone={(to) => to && void onReshape({ kind: 'field', from: field.key, to })}
        />
        <div>
          <Text size="sm" fw={600}>
            Used by
          </Text>
          <ul className={classes.uses}>
            {usage.rules.map((rule) => (
              <li key={rule.key}>
                the rule {definition.rules.indexOf(rule) + 1}, {rule.name}
              </li>
            ))}
            {usage.forms.map((form) => (
              <li key={form}>the form {form}</li>
            ))}
            {usage.examples.map((example) => (
              <li key={example}>the example “{example}”</li>
            ))}
            {field.key === type.titleField && <li>lists, which call records by it</li>}
            {usage.rules.length + usage.forms.length + usage.examples.length === 0 && field.key !== type.titleField && (
              <li>nothing</li>
            )}
          </ul>
          <Text size="sm" mb={6}>
            {held === undefined
              ? 'No record holds it yet.'
              : records === undefined
                ? 'Counting the records that hold it…'
                : `${recordsOf(records)} ${records === 1 ? 'holds' : 'hold'} a value of it.`}
          </Text>
          <Group gap="xs">
            <Button
              variant="default"
              disabled={field.key === type.titleField}
              onClick={() => onChange(retired(type, field.key, !field.retired))}
            >
              {field.retired ? 'Bring it back' : 'Retire it'}
            </Button>
            <Button
              variant="default"
              disabled={isUsed || (held !== undefined && records !== 0)}
              onClick={() => {
                onChange(withoutField(type, field.key));
                onClose();
              }}
            >
              Delete the field
            </Button>
          </Group>
          <Text size="xs" c="dimmed" mt={4}>
            {field.retired
              ? 'It is kept in the records that have it and in their history, and offered nowhere new.'
              : isUsed
                ? 'To be deleted it must be used by nothing. Retired, it leaves the forms; records keep what they have.'
                : held !== undefined && records !== 0
                  ? 'To be deleted no record may hold it. Retired, it leaves the forms; records keep what they have.'
                  : ''}
          </Text>
        </div>
      </Stack>
    </section>
  );
}
