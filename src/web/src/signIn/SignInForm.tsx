import { Button, PasswordInput, Stack, Text, TextInput } from '@mantine/core';
import { useState, type ReactNode } from 'react';
import { answered, type Problem } from '../api/client';
import { signIn } from '../api/generated';
import { useSignedIn, useSignedInChanged } from '../api/signedIn';
import classes from './SignIn.module.css';

interface Props {
  /** What stands above the fields. */
  children: ReactNode;
  /** Account name of who was signed in; undefined for nobody. */
  person?: string;
  onSignedIn?: () => void;
}

/** Name and password. */
export function SignInForm({ children, person, onSignedIn }: Props) {
  const [userName, setUserName] = useState(person ?? '');
  const [password, setPassword] = useState('');
  const [problem, setProblem] = useState<Problem>();
  const unreachable = useSignedIn().error as Problem | null;
  const signedInChanged = useSignedInChanged();

  async function submit() {
    setProblem(undefined);
    try {
      await answered(signIn({ body: { userName, password } }));
      await signedInChanged();
      onSignedIn?.();
    } catch (error) {
      setProblem(error as Problem);
    }
  }

  const shown = problem ?? unreachable;
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        void submit();
      }}
    >
      <Stack gap="sm">
        {children}
        <TextInput
          size="sm"
          label="Name"
          name="userName"
          autoComplete="username"
          data-autofocus
          autoFocus
          value={userName}
          onFocus={(e) => e.currentTarget.select()}
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
  );
}
