import { ActionIcon, Button, Select, Stack, Text, Title } from '@mantine/core';
import { IconX } from '@tabler/icons-react';
import type { Definition, Field, Problem, RecordType } from '../api/generated';
import { Resting } from '../draftingTable/element/Resting';
import { withRest } from '../draftingTable/rule/resting';
import { Typed } from '../frame/Typed';
import lines from '../sheet/lines.module.css';
import { DefaultInput } from './DefaultInput';
import { placed, sectionOf, withField, withoutField, withType } from './edits';
import { fieldKinds, kindLabel } from './fieldKinds';
import classes from './Fields.module.css';
import { TypeSettings } from './TypeSettings';
import type { Usage } from './usage';

interface Props {
  definition: Definition;
  field: Field;
  usage: Usage;
  mistakes: Problem[];
  /** The field as the edition in force has it: records may hold values of it. Undefined for one that only the draft has. */
  held: Field | undefined;
  onChange: (type: RecordType) => void;
  onClose: () => void;
}

/** Everything that one field is. */
export function FieldPanel({ definition, field, usage, mistakes, held, onChange, onClose }: Props) {
  const { recordType: type } = definition;
  const change = (part: Partial<Field>) => onChange(withField(type, field.key, part));
  const sections = type.forms[0]?.tabs.flatMap((tab) =>
    tab.sections.map((section) => ({ value: section.key, label: `${tab.label} › ${section.label}` })),
  );
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
        {held ? (
          <Text size="sm">
            <b>Type</b> {kindLabel(field.type.kind)}. Records hold values of it, so it keeps its type; its settings may change.
          </Text>
        ) : (
          <Select
            label="Type"
            allowDeselect={false}
            data={fieldKinds.map(({ value, label }) => ({ value, label }))}
            value={field.type.kind}
            onChange={(kind) => {
              const { first } = fieldKinds.find(({ value }) => value === kind)!;
              onChange(withType(definition, field.key, first).recordType);
            }}
          />
        )}
        <TypeSettings
          type={field.type}
          isHeld={held !== undefined}
          onChange={(next) => onChange(withType(definition, field.key, next).recordType)}
        />
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
        <Text size="sm">
          <b>Key</b> {field.key}: what files and the interface for programs call it.
        </Text>
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
          <Button
            variant="default"
            disabled={isUsed || held !== undefined}
            onClick={() => {
              onChange(withoutField(type, field.key));
              onClose();
            }}
          >
            Delete the field
          </Button>
          {(isUsed || held) && (
            <Text size="xs" c="dimmed" mt={4}>
              {isUsed
                ? 'What uses it has to go first.'
                : 'Records may hold values of it. Take it off the forms instead: what was filled in stays in the records and their history.'}
            </Text>
          )}
        </div>
      </Stack>
    </section>
  );
}
