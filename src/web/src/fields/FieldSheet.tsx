import { Button, Select, Text, TextInput, Title } from '@mantine/core';
import { IconPlus, IconSearch } from '@tabler/icons-react';
import { useState } from 'react';
import type { Field } from '../api/generated';
import type { Drawing } from '../draftingTable/draft/OpenDraft';
import lines from '../sheet/lines.module.css';
import { withNewField } from './edits';
import { FieldPanel } from './FieldPanel';
import { fieldKinds, kindLabel, settingsOf, type FieldKind } from './fieldKinds';
import classes from './Fields.module.css';
import { usageOf, type Usage } from './usage';

/** All fields as a list, and the one that is chosen beside it with everything that it is. */
export function FieldSheet({ draft, published, problems }: Drawing) {
  const { definition, changeType } = draft;
  const { recordType: type } = definition;
  const [chosen, setChosen] = useState<string>();
  const [words, setWords] = useState('');
  const [label, setLabel] = useState('');
  const [kind, setKind] = useState<FieldKind>('text');
  const field = type.fields.find(({ key }) => key === chosen);
  const found = type.fields.filter((one) =>
    `${one.label} ${one.key} ${kindLabel(one.type.kind)} ${one.help ?? ''}`.toLowerCase().includes(words.trim().toLowerCase()),
  );

  function add() {
    if (label.trim()) {
      const grown = withNewField(type, label.trim(), kind);
      changeType(grown.type);
      setChosen(grown.key);
      setLabel('');
      setWords('');
    }
  }

  const mistakesOf = (key: string) => {
    const at = type.fields.findIndex((one) => one.key === key);
    return problems.type.filter(({ place }) => `${place}/`.startsWith(`/recordType/fields/${at}/`));
  };

  return (
    <main className={classes.page} data-chosen={field ? true : undefined}>
      <section className={classes.list} aria-label="Fields">
        <Title order={2} className={classes.heading}>
          {type.label}: {type.fields.length} {type.fields.length === 1 ? 'field' : 'fields'}
        </Title>
        <form
          className={classes.bar}
          onSubmit={(event) => {
            event.preventDefault();
            add();
          }}
        >
          <TextInput
            className={classes.grow}
            aria-label="Label of the new field"
            placeholder="A new field: what people call it"
            value={label}
            onChange={(event) => setLabel(event.currentTarget.value)}
          />
          <Select
            aria-label="Type of the new field"
            w={150}
            allowDeselect={false}
            data={fieldKinds.map(({ value, label: name }) => ({ value, label: name }))}
            value={kind}
            onChange={(next) => setKind(next as FieldKind)}
          />
          <Button type="submit" disabled={!label.trim()} leftSection={<IconPlus size={14} />}>
            Add
          </Button>
          <TextInput
            w={170}
            aria-label="Find fields"
            placeholder="Find fields"
            leftSection={<IconSearch size={14} />}
            value={words}
            onChange={(event) => setWords(event.currentTarget.value)}
          />
        </form>
        <div className={classes.scroll}>
          <table className={classes.table}>
            <thead>
              <tr>
                <th>Label</th>
                <th>Type</th>
                <th>At rest</th>
                <th>Used by</th>
              </tr>
            </thead>
            <tbody>
              {found.map((one) => (
                <Row
                  key={one.key}
                  field={one}
                  usage={usageOf(definition, one.key)}
                  isTitle={one.key === type.titleField}
                  isChosen={one.key === chosen}
                  isWrong={mistakesOf(one.key).length > 0}
                  onChoose={() => setChosen(one.key === chosen ? undefined : one.key)}
                />
              ))}
            </tbody>
          </table>
          {found.length === 0 && (
            <Text size="sm" c="dimmed" p="sm">
              No field is like that.
            </Text>
          )}
        </div>
      </section>
      {field && (
        <FieldPanel
          key={field.key}
          definition={definition}
          field={field}
          usage={usageOf(definition, field.key)}
          mistakes={mistakesOf(field.key)}
          held={published?.fields.find(({ key }) => key === field.key)}
          onChange={changeType}
          onClose={() => setChosen(undefined)}
        />
      )}
    </main>
  );
}

interface RowProps {
  field: Field;
  usage: Usage;
  /** Whether records are called by it. */
  isTitle: boolean;
  isChosen: boolean;
  isWrong: boolean;
  onChoose: () => void;
}

function Row({ field, usage, isTitle, isChosen, isWrong, onChoose }: RowProps) {
  const { visibility = 'shown', requirement = 'optional', access = 'open' } = field.rest ?? {};
  const rest = [
    visibility === 'hidden' && 'hidden',
    requirement === 'toMoveOn' && 'required to move on',
    requirement === 'toSave' && 'required to save',
    access === 'locked' && 'locked',
  ].filter(Boolean);
  const settings = settingsOf(field.type);
  return (
    <tr data-field={field.key} data-chosen={isChosen || undefined}>
      <td>
        <button type="button" className={classes.choose} aria-expanded={isChosen} onClick={onChoose}>
          {field.label || '(no label)'}
        </button>
        {isTitle && <span className={lines.word}>records are called by it</span>}
        {isWrong && <span className={lines.wrong}> has a problem</span>}
      </td>
      <td>
        {kindLabel(field.type.kind)}
        {settings && <span className={classes.soft}> {settings}</span>}
      </td>
      <td>{rest.join(', ') || '—'}</td>
      <td className={classes.soft}>
        {[
          count(usage.rules.length, 'rule'),
          usage.forms.length === 0 ? 'on no form' : usage.forms.join(', '),
          usage.examples.length > 0 && count(usage.examples.length, 'example'),
        ]
          .filter(Boolean)
          .join(' · ')}
      </td>
    </tr>
  );
}

const count = (number: number, noun: string) => (number === 0 ? `no ${noun}` : `${number} ${noun}${number === 1 ? '' : 's'}`);
