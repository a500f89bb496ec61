import { Select, Text, TextInput, Title } from '@mantine/core';
import { IconSearch } from '@tabler/icons-react';
import { useState } from 'react';
import type { Drawing } from '../draftingTable/draft/Drawn';
import { useReshape } from '../draftingTable/draft/useReshape';
import { FieldPanel } from './FieldPanel';
import { kindLabel } from './fieldKinds';
import classes from './Fields.module.css';
import { FieldTable } from './FieldTable';
import { NewFields } from './NewFields';
import { originOf } from './origin';
import { SeveralFields } from './SeveralFields';
import { usageOf } from './usage';
import { useHoldings } from './useHoldings';

const states = [
  { value: 'all', label: 'all of them' },
  { value: 'placed', label: 'on a form' },
  { value: 'unplaced', label: 'on no form' },
  { value: 'unused', label: 'used by nothing' },
  { value: 'retired', label: 'retired' },
];

/** All fields as a table, and the one that is chosen beside it with everything that it is. */
export function FieldSheet({ draft, published, problems }: Drawing) {
  const { definition, changeType } = draft;
  const { recordType: type } = definition;
  const reshape = useReshape(draft.shared);
  const holdings = useHoldings(type.key, published !== undefined);
  const [chosen, setChosen] = useState<string>();
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set());
  const [words, setWords] = useState('');
  const [state, setState] = useState('all');
  const field = type.fields.find(({ key }) => key === chosen);
  const rows = type.fields.map((one) => ({ field: one, usage: usageOf(definition, one.key) }));
  const found = rows.filter(
    ({ field: one, usage }) =>
      `${one.label} ${one.key} ${kindLabel(one.type.kind)} ${one.help ?? ''}`
        .toLowerCase()
        .includes(words.trim().toLowerCase()) &&
      (state === 'all' ||
        (state === 'retired' && one.retired) ||
        (state === 'placed' && usage.forms.length > 0) ||
        (state === 'unplaced' && usage.forms.length === 0 && !one.retired) ||
        (state === 'unused' &&
          usage.rules.length + usage.forms.length + usage.examples.length === 0 &&
          one.key !== type.titleField)),
  );
  const several = found.filter(({ field: one }) => ticked.has(one.key));

  const mistakesOf = (key: string) => {
    const at = type.fields.findIndex((one) => one.key === key);
    return problems.type.filter(({ place }) => `${place}/`.startsWith(`/recordType/fields/${at}/`));
  };
  const heldBy = (key: string) => {
    const origin = originOf(type, published, key);
    return origin && holdings && (holdings.fields[origin.key] ?? 0);
  };

  return (
    <main className={classes.page} data-chosen={field ? true : undefined}>
      <section className={classes.list} aria-label="Fields">
        <Title order={2} className={classes.heading}>
          {type.label}: {type.fields.length} {type.fields.length === 1 ? 'field' : 'fields'}
        </Title>
        <div className={classes.bar}>
          <NewFields
            type={type}
            onAdd={(grown, key) => {
              changeType(grown);
              setChosen(key);
              setWords('');
              setState('all');
            }}
          />
          <TextInput
            w={130}
            aria-label="Find fields"
            placeholder="Find fields"
            leftSection={<IconSearch size={14} />}
            value={words}
            onChange={(event) => setWords(event.currentTarget.value)}
          />
          <Select
            aria-label="Which fields are listed"
            w={135}
            allowDeselect={false}
            data={states}
            value={state}
            onChange={(next) => next && setState(next)}
          />
        </div>
        {several.length > 0 && (
          <SeveralFields
            type={type}
            rows={several}
            heldBy={heldBy}
            isHeld={(key) => originOf(type, published, key) !== undefined}
            onChange={changeType}
            onAll={() => setTicked(new Set(found.map(({ field: one }) => one.key)))}
            onDone={() => setTicked(new Set())}
          />
        )}
        <div className={classes.scroll}>
          <FieldTable
            rows={found}
            titleField={type.titleField}
            chosen={chosen}
            ticked={ticked}
            heldBy={heldBy}
            isWrong={(key) => mistakesOf(key).length > 0}
            onChoose={(key) => setChosen(key === chosen ? undefined : key)}
            onTick={setTicked}
          />
          {found.length === 0 && (
            <Text size="sm" c="dimmed" p="sm">
              No field is like that.
            </Text>
          )}
        </div>
      </section>
      {field && (
        <FieldPanel
          key={type.fields.indexOf(field)}
          definition={definition}
          field={field}
          usage={usageOf(definition, field.key)}
          mistakes={mistakesOf(field.key)}
          held={originOf(type, published, field.key)}
          holdings={holdings}
          onChange={changeType}
          onReshape={async (change) => {
            await reshape(change);
            if (
              change.kind === 'field' &&
              draft.shared.present().definition.recordType.fields.some(({ key }) => key === change.to)
            ) {
              setChosen(change.to);
            }
          }}
          onClose={() => setChosen(undefined)}
        />
      )}
    </main>
  );
}
