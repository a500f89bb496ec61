import { Button, Checkbox, Group, Stack, Text, TextInput } from '@mantine/core';
import { useState } from 'react';
import { answered, type Problem } from '../api/client';
import { changeAccount, invitePerson, type AccountEntry, type Role } from '../api/generated';
import { Dialog } from '../frame/Dialog';
import lines from '../sheet/lines.module.css';
import type { Link } from './HandedOut';

interface Props {
  /** Whose account is changed; undefined where a person is invited. */
  account: AccountEntry | undefined;
  roles: Role[];
  /** One's own administrator's role stays. */
  isOwn: boolean;
  onClose: () => void;
  onDone: (link?: Link) => void;
}

/** A person's name and roles. */
export function AccountForm({ account, roles, isOwn, onClose, onDone }: Props) {
  const [userName, setUserName] = useState(account?.userName ?? '');
  const [displayName, setDisplayName] = useState(account?.displayName ?? '');
  const [keys, setKeys] = useState(account?.roles ?? []);
  const [problem, setProblem] = useState<Problem>();

  async function submit() {
    setProblem(undefined);
    try {
      if (account) {
        const body = { displayName, roles: keys, isDisabled: account.isDisabled };
        await answered(changeAccount({ path: { userName: account.userName }, body }));
        onDone();
      } else {
        const made = await answered(invitePerson({ body: { userName, displayName, roles: keys } }));
        onDone({ ...made, person: displayName });
      }
    } catch (refusal) {
      setProblem(refusal as Problem);
    }
  }

  return (
    <Dialog title={account ? `The account of ${account.displayName}` : 'Invite a person'} isOpen onClose={onClose}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void submit();
        }}
      >
        <Stack gap="sm">
          <TextInput
            label="What people call them"
            data-autofocus
            value={displayName}
            onChange={(event) => setDisplayName(event.currentTarget.value)}
          />
          {!account && (
            <TextInput
              label="Name to sign in with"
              value={userName}
              onChange={(event) => setUserName(event.currentTarget.value)}
            />
          )}
          <Checkbox.Group label="Roles" value={keys} onChange={setKeys}>
            <Stack gap={6} mt={4}>
              {roles.map((role) => (
                <Checkbox key={role.key} value={role.key} label={role.label} disabled={isOwn && role.key === 'administrator'} />
              ))}
            </Stack>
          </Checkbox.Group>
          {problem && (
            <Text className={lines.wrong} role="alert" size="sm">
              {problem.title} {problem.detail}
            </Text>
          )}
          <Group justify="end">
            <Button variant="default" onClick={onClose}>
              Close
            </Button>
            <Button type="submit">{account ? 'Change the account' : 'Make the link'}</Button>
          </Group>
        </Stack>
      </form>
    </Dialog>
  );
}
