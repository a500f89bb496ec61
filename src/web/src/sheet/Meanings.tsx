import { Button, Group } from '@mantine/core';
import type { PossibleValue } from '../engine/answers';
import { inLocale } from '../writing/dates';

interface Props {
  /** Of what it may mean these. */
  of: string;
  choices: PossibleValue[];
  onChoose: (choice: PossibleValue) => void;
}

/** What a text may mean, each one press away; nothing where that is certain. */
export function Meanings({ of, choices, onChoose }: Props) {
  return choices.length === 0 ? null : (
    <Group gap={6} mt={4} role="group" aria-label={`What ${of} means`}>
      {choices.map((one) => (
        <Button key={one.text} size="compact-xs" variant="default" onClick={() => onChoose(one)}>
          {inLocale(one.text)}
        </Button>
      ))}
    </Group>
  );
}
