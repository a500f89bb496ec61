import { Button, CopyButton, Group, Text } from '@mantine/core';
import { when } from '../writing/when';
import classes from './People.module.css';

/** A link that was made, and for whom. */
export interface Link {
  key: string;
  expiresAt: string;
  person: string;
}

/** The link by which a person sets a password: shown once, to be handed over by whatever way one trusts. */
export function HandedOut({ link, onClose }: { link: Link; onClose: () => void }) {
  const address = `${window.location.origin}/welcome#${link.key}`;
  return (
    <div className={classes.link} role="status">
      <Text size="sm">
        Hand this link to {link.person}. It sets a password once, until {when(link.expiresAt)}, and is not shown again.
      </Text>
      <code className={classes.address}>{address}</code>
      <Group gap={6}>
        <CopyButton value={address}>
          {({ copied, copy }) => (
            <Button size="compact-sm" onClick={copy}>
              {copied ? 'Copied' : 'Copy'}
            </Button>
          )}
        </CopyButton>
        <Button size="compact-sm" variant="default" onClick={onClose}>
          Close
        </Button>
      </Group>
    </div>
  );
}
