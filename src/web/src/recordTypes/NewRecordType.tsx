import { Button, FileButton, Group, Stack, Text, TextInput } from '@mantine/core';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router-dom';
import { answered, type Problem } from '../api/client';
import { createRecordType, createRecordTypeFromPack, type Pack } from '../api/generated';
import { Dialog } from '../frame/Dialog';
import lines from '../sheet/lines.module.css';
import { addressKeyFor } from './addressKey';
import { fileText } from '../exchange/fileText';

/** Begins a record type: an empty one, or as a pack has it. Members see nothing of it before it is published. */
export function NewRecordType({ taken, onClose }: { taken: string[]; onClose: () => void }) {
  const [label, setLabel] = useState('');
  const [ownKey, setOwnKey] = useState<string>();
  const [problem, setProblem] = useState<Problem & { problems?: { what: string; mend: string }[] }>();
  const navigate = useNavigate();
  const key = ownKey ?? addressKeyFor(label, taken);

  async function begin(create: () => Promise<{ key: string }>) {
    setProblem(undefined);
    try {
      const made = await create();
      await navigate(`/types/${made.key}/fields`);
    } catch (refusal) {
      setProblem(refusal as Problem);
    }
  }

  const fromPack = (file: File | null) =>
    file &&
    begin(async () => {
      let pack: Pack;
      try {
        pack = JSON.parse(await fileText(file)) as Pack;
      } catch {
        throw { title: 'The file could not be read.', detail: 'It is no JSON. Choose a pack, as Dibujo exports it.' } as Problem;
      }
      return answered(createRecordTypeFromPack({ body: pack }));
    });

  return (
    <Dialog title="Begin a record type" isOpen onClose={onClose}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void begin(() => answered(createRecordType({ body: { key, label } })));
        }}
      >
        <Stack gap="sm">
          <TextInput
            label="What one such record is called"
            placeholder="such as Gallery works request"
            data-autofocus
            value={label}
            onChange={(event) => setLabel(event.currentTarget.value)}
          />
          <TextInput
            label="Key"
            description="In addresses and files; it stays."
            value={label.trim() || ownKey !== undefined ? key : ''}
            onChange={(event) => setOwnKey(event.currentTarget.value)}
          />
          {problem && (
            <Text className={lines.wrong} role="alert" size="sm">
              {problem.title} {problem.problems?.map(({ what, mend }) => `${what} ${mend}`).join(' ') ?? problem.detail}
            </Text>
          )}
          <Group justify="space-between">
            <Group gap="xs">
              <Button variant="default" component={Link} to="/from-table">
                From a table…
              </Button>
              <FileButton accept="application/json,.json" onChange={(file) => void fromPack(file)}>
                {(props) => (
                  <Button variant="default" {...props}>
                    From a pack…
                  </Button>
                )}
              </FileButton>
            </Group>
            <Button type="submit" disabled={!label.trim()}>
              Begin it
            </Button>
          </Group>
        </Stack>
      </form>
    </Dialog>
  );
}
