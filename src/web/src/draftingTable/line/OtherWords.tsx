import { ActionIcon, Button, Select, TextInput } from '@mantine/core';
import { IconX } from '@tabler/icons-react';
import { useRef, useState } from 'react';
import type { OtherWord, RecordType } from '../../api/generated';
import { Dialog } from '../../frame/Dialog';
import classes from './OtherWords.module.css';
import { meaningOf, meantBy, nameables, withoutWord, withWord } from './otherWords';

interface Props {
  type: RecordType;
  isOpen: boolean;
  onChange: (type: RecordType) => void;
  onClose: () => void;
}

const longest = 60;

/** What people here call fields, choices, stages and roles beside their names: the line understands rules that are said so. */
export function OtherWords({ type, isOpen, onChange, onClose }: Props) {
  const [said, setSaid] = useState('');
  const [meant, setMeant] = useState<string | null>(null);
  const first = useRef<HTMLInputElement>(null);
  const all = nameables(type);
  const groups = ['Fields', 'Choices', 'Stages', 'Roles'].map((group) => ({
    group,
    items: all.filter(({ kind }) => kind === group).map((one) => ({ value: meaningOf(one.meant), label: one.label })),
  }));
  const words = type.otherWords ?? [];
  return (
    <Dialog isOpen={isOpen} onClose={onClose} title="Other words" size="lg">
      <p className={classes.about}>
        What people here say for something that has another name. The line understands it; screens keep the name.
      </p>
      {words.length === 0 ? (
        <p className={classes.none}>
          There are none yet. One is offered, too, where you put a name for a word that was not understood.
        </p>
      ) : (
        <ul className={classes.words} aria-label="Other words">
          {words.map((word) => (
            <Row
              key={`${word.said} ${meaningOf(word)}`}
              word={word}
              meant={meantBy(type, word)}
              onRemove={() => onChange(withoutWord(type, word))}
            />
          ))}
        </ul>
      )}
      <form
        className={classes.add}
        onSubmit={(event) => {
          event.preventDefault();
          const one = all.find((of) => meaningOf(of.meant) === meant);
          if (one && said.trim() !== '') {
            onChange(withWord(type, { ...one.meant, said: said.trim() }));
            setSaid('');
            setMeant(null);
            // The button that was pressed cannot be any more: the next word is what follows.
            first.current?.focus();
          }
        }}
      >
        <TextInput
          label="People say"
          ref={first}
          data-autofocus
          maxLength={longest}
          value={said}
          onChange={(event) => setSaid(event.currentTarget.value)}
        />
        <Select
          label="and mean"
          placeholder="a field, choice, stage or role"
          searchable
          data={groups}
          value={meant}
          onChange={setMeant}
        />
        <Button type="submit" disabled={said.trim() === '' || meant === null}>
          Add
        </Button>
      </form>
    </Dialog>
  );
}

const Row = ({ word, meant, onRemove }: { word: OtherWord; meant: string | undefined; onRemove: () => void }) => (
  <li className={classes.word}>
    <span>“{word.said}”</span>
    <span>{meant ?? 'something that is no more, or is retired'}</span>
    <ActionIcon variant="subtle" size="md" aria-label={`Forget “${word.said}”`} onClick={onRemove}>
      <IconX size={16} />
    </ActionIcon>
  </li>
);
