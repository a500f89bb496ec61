import { Button, Checkbox, Group, Menu, Text, TextInput } from '@mantine/core';
import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { answered, type Problem } from '../api/client';
import { keepView, removeView, type RecordType, type ViewEntry } from '../api/generated';
import { usePeople } from '../api/people';
import { useSignedIn } from '../api/signedIn';
import { Dialog } from '../frame/Dialog';
import type { Layout } from './layout';

interface Props {
  type: RecordType;
  views: ViewEntry[];
  layout: Layout;
  onChoose: (layout: Layout) => void;
}

/** How long nothing is changed before the list is remembered as it is, in milliseconds. */
const pause = 1500;

/** Named views of the list: a person's own, and those that others share. How the list was left is kept by itself. */
export function Views({ type, views, layout, onChoose }: Props) {
  const queries = useQueryClient();
  const person = useSignedIn().data?.person?.userName;
  const nameOf = usePeople();
  const [isNaming, setNaming] = useState(false);
  const [name, setName] = useState('');
  const [isShared, setShared] = useState(false);
  const [problem, setProblem] = useState<Problem>();
  const kept = useRef(JSON.stringify(layout));
  const written = JSON.stringify(layout);
  useEffect(() => {
    const timer = window.setTimeout(() => {
      if (kept.current !== written) {
        kept.current = written;
        void keepView({ path: { key: type.key }, body: { name: '', isShared: false, layout: JSON.parse(written) } });
      }
    }, pause);
    return () => window.clearTimeout(timer);
  }, [written, type.key]);

  async function keep() {
    try {
      await answered(keepView({ path: { key: type.key }, body: { name, isShared, layout: JSON.parse(written) } }));
      await queries.invalidateQueries({ queryKey: ['views', type.key] });
      setNaming(false);
      setName('');
      setProblem(undefined);
    } catch (mistake) {
      setProblem(mistake as Problem);
    }
  }

  async function remove(id: number) {
    await answered(removeView({ path: { key: type.key, id } }));
    await queries.invalidateQueries({ queryKey: ['views', type.key] });
  }

  const named = views.filter((view) => view.name !== '');
  return (
    <>
      <Menu>
        <Menu.Target>
          <Button variant="default">Views</Button>
        </Menu.Target>
        <Menu.Dropdown>
          {named.map((view) => (
            <Menu.Item key={view.id} onClick={() => onChoose(view.layout as unknown as Layout)}>
              {view.name}
              {view.owner !== person && ` (${nameOf(view.owner)})`}
            </Menu.Item>
          ))}
          <Menu.Item onClick={() => setNaming(true)}>Keep this view…</Menu.Item>
          {named
            .filter(({ owner }) => owner === person)
            .map((view) => (
              <Menu.Item key={`remove ${view.id}`} onClick={() => void remove(view.id)}>
                Remove “{view.name}”
              </Menu.Item>
            ))}
        </Menu.Dropdown>
      </Menu>
      <Dialog title="Keep this view" isOpen={isNaming} onClose={() => setNaming(false)}>
        <form
          onSubmit={(event) => {
            event.preventDefault();
            void keep();
          }}
        >
          <TextInput data-autofocus label="Name" value={name} onChange={(event) => setName(event.currentTarget.value)} />
          <Checkbox
            mt="sm"
            size="xs"
            label="Others may use it too"
            checked={isShared}
            onChange={(event) => setShared(event.currentTarget.checked)}
          />
          {problem && (
            <Text size="sm" role="alert" mt="xs">
              {problem.title} {problem.detail}
            </Text>
          )}
          <Group mt="md">
            <Button type="submit" disabled={!name.trim()}>
              Keep
            </Button>
          </Group>
        </form>
      </Dialog>
    </>
  );
}
