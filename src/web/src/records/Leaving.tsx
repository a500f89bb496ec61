import { Button, Group, Text } from '@mantine/core';
import { useBlocker } from 'react-router-dom';
import { Dialog } from '../frame/Dialog';
import { useClosingWarning } from '../frame/useClosingWarning';

/** Asks before the record is left while something typed is not saved. What is left behind is offered again. */
export function Leaving({ isUnsaved, onForget }: { isUnsaved: boolean; onForget: () => void }) {
  const blocker = useBlocker(({ currentLocation, nextLocation }) => {
    const { isSaved } = (nextLocation.state ?? {}) as { isSaved?: boolean };
    // Another form is another way of looking at the same record.
    return isUnsaved && !isSaved && currentLocation.pathname !== nextLocation.pathname;
  });
  useClosingWarning(isUnsaved);
  return (
    <Dialog title="Something here is not saved" isOpen={blocker.state === 'blocked'} onClose={() => blocker.reset?.()}>
      <Text size="sm">What you typed stays at this browser, and is offered again when you open this record.</Text>
      <Group mt="md" gap="xs">
        <Button data-autofocus onClick={() => blocker.reset?.()}>
          Stay here
        </Button>
        <Button variant="default" onClick={() => blocker.proceed?.()}>
          Keep it for later
        </Button>
        <Button
          variant="default"
          onClick={() => {
            onForget();
            blocker.proceed?.();
          }}
        >
          Throw it away and leave
        </Button>
      </Group>
    </Dialog>
  );
}
