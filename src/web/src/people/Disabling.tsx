import { Button, Group, Text } from '@mantine/core';
import type { AccountEntry } from '../api/generated';
import { Dialog } from '../frame/Dialog';

interface Props {
  account: AccountEntry;
  onClose: () => void;
  onDisable: () => void;
}

/** Asks before a person is shut out: what is theirs and open is closed at that moment. */
export function Disabling({ account, onClose, onDisable }: Props) {
  return (
    <Dialog title={`Disable ${account.displayName}?`} isOpen onClose={onClose}>
      <Text size="sm">
        They are signed out at once, everywhere; what they have typed and not saved stays in their browser. Programs that act for
        them and links for a password are ended for good, and an import of theirs stops where it is. What they did stays in the
        histories, and they can be let in again.
      </Text>
      <Group mt="md" gap={8}>
        <Button onClick={onDisable}>Disable</Button>
        <Button variant="default" data-autofocus onClick={onClose}>
          Leave as it is
        </Button>
      </Group>
    </Dialog>
  );
}
