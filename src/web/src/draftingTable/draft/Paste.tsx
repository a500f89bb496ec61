import { Button, Group, Text, Textarea } from '@mantine/core';
import { useState } from 'react';
import type { Rule } from '../../api/generated';
import type { DraftProgram } from '../../engine/draftProgram';
import { Dialog } from '../../frame/Dialog';
import lines from '../../sheet/lines.module.css';
import { pasted, type Pasted } from '../list/exchange';

interface Props {
  isOpen: boolean;
  rules: Rule[];
  program: DraftProgram;
  onAdd: (rules: Rule[]) => void;
  onClose: () => void;
}

/** Takes rules from elsewhere: sentences, a line each, or a pack. What cannot be read stays, with the reason. */
export function Paste({ isOpen, rules, program, onAdd, onClose }: Props) {
  const [text, setText] = useState('');
  const [unread, setUnread] = useState<Pasted['unread']>([]);

  async function take() {
    const result = await pasted(text, program, rules);
    if (result.rules.length > 0) {
      onAdd(result.rules);
    }
    setUnread(result.unread);
    setText(result.unread.map(({ line }) => line).join('\n'));
    if (result.unread.length === 0) {
      onClose();
    }
  }

  return (
    <Dialog isOpen={isOpen} onClose={onClose} title="Paste rules" size="lg">
      <Textarea
        label="Sentences, a line each, or a pack"
        data-autofocus
        autosize
        minRows={5}
        maxRows={16}
        value={text}
        onChange={(event) => setText(event.currentTarget.value)}
      />
      {unread.length > 0 && (
        <div role="alert" className={lines.wrong}>
          {unread.length === 1
            ? 'One line could not be read and stays here:'
            : `${unread.length} lines could not be read and stay here:`}
          <ul>
            {unread.map(({ line, why }) => (
              <li key={line}>
                “{line}”: {why}
              </li>
            ))}
          </ul>
        </div>
      )}
      <Group justify="space-between" mt="md">
        <Text size="xs" c="dimmed">
          They come to the top of the list, and can be undone.
        </Text>
        <Button disabled={text.trim() === ''} onClick={() => void take()}>
          Take them in
        </Button>
      </Group>
    </Dialog>
  );
}
