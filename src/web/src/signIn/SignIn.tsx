import { Button, PasswordInput, Stack, Text, TextInput, Title } from '@mantine/core';
import { useState } from 'react';
import { answered, type Problem } from '../api/client';
import { signIn } from '../api/generated';
import { useSignedIn, useSignedInChanged } from '../api/signedIn';
import classes from './SignIn.module.css';

export function SignIn() {
  const [userName, setUserName] = useState('');
  const [password, setPassword] = useState('');
  const [problem, setProblem] = useState<Problem>();
  const unreachable = useSignedIn().error as Problem | null;
  const signedInChanged = useSignedInChanged();

  async function submit() {
    setProblem(undefined);
    try {
      await answered(signIn({ body: { userName, password } }));
      await signedInChanged();
    } catch (error) {
      setProblem(error as Problem);
      await signedInChanged();
    }
  }

  const shown = problem ?? unreachable;
  return (
    <main className={classes.page}>
      <title>Sign in · Dibujo</title>
      <form
        className={classes.sheet}
        onSubmit={(event) => {
          event.preventDefault();
          void submit();
        }}
      >
        <Stack gap="sm">
          <Title order={1}>Dibujo</Title>
          <Text c="dimmed" size="sm">
            Forms that follow their rules.
          </Text>
          <TextInput
            size="sm"
            label="Name"
            name="userName"
            autoComplete="username"
            autoFocus
            value={userName}
            onChange={(e) => setUserName(e.currentTarget.value)}
          />
          <PasswordInput
            size="sm"
            label="Password"
            name="password"
            autoComplete="current-password"
            value={password}
            onChange={(e) => setPassword(e.currentTarget.value)}
          />
          {shown && (
            <Text className={classes.problem} role="alert" size="sm">
              {shown.title} {shown.detail}
            </Text>
          )}
          <Button size="sm" type="submit" mt="xs">
            Sign in
          </Button>
        </Stack>
      </form>
    </main>
  );
}
