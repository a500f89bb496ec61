import { Center, Stack, Text, Title } from '@mantine/core';
import { Link, useLocation } from 'react-router-dom';
import { Place } from './Place';

/** Said of an address at which there is nothing. */
export function NotFound() {
  const { pathname } = useLocation();
  return (
    <main>
      <Place steps={[{ label: 'Record types', to: '/' }, { label: 'Nothing here' }]} />
      <Center h="60vh">
        <Stack gap="xs" maw={420} p="md">
          <Title order={2}>There is nothing at this address</Title>
          <Text style={{ overflowWrap: 'anywhere' }}>
            {pathname} leads nowhere. It may be mistyped, or what was there is gone.
          </Text>
          <Link to="/" style={{ color: 'var(--act)' }}>
            Go to the record types
          </Link>
        </Stack>
      </Center>
    </main>
  );
}
