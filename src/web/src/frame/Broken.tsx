import { Button, Center, Stack, Text, Title } from '@mantine/core';
import { useEffect } from 'react';
import { useRouteError } from 'react-router-dom';

/** A screen that could not be drawn. That is a mistake of ours; what was typed is kept, and offered when the page is loaded again. */
export function Broken() {
  const mistake = useRouteError();
  useEffect(() => console.error(mistake), [mistake]);
  return (
    <Center component="main" h="100%" p="md">
      <Stack align="flex-start" maw={520} role="alert">
        <Title order={1} size="h2">
          This page cannot be drawn
        </Title>
        <Text>
          That is a mistake in Dibujo, not in what you did. What you typed is kept in this browser and is offered again once the
          page is loaded anew. If it happens again, tell whoever runs this installation what you did last.
        </Text>
        <Button onClick={() => window.location.reload()}>Load the page again</Button>
      </Stack>
    </Center>
  );
}
