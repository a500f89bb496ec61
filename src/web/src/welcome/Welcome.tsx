import { Button, PasswordInput, Stack, Text, TextInput, Title } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { answered, type Problem } from '../api/client';
import { acceptInvitation, lookAtInvitation, signIn } from '../api/generated';
import classes from '../signIn/SignIn.module.css';

/** Where a link leads that was handed out: a person sets a password with it, once. The key stands after the #, so that no log has it. */
export function Welcome() {
  const [key] = useState(() => window.location.hash.slice(1));
  const [userName, setUserName] = useState('');
  const [displayName, setDisplayName] = useState('');
  const [password, setPassword] = useState('');
  const [again, setAgain] = useState('');
  const [problem, setProblem] = useState<Problem>();
  const invitation = useQuery({ queryKey: ['welcome', key], queryFn: () => answered(lookAtInvitation({ body: { key } })) });
  const isFirst = invitation.data && !invitation.data.userName;

  async function accept() {
    setProblem(undefined);
    if (password !== again) {
      setProblem({ title: 'The two passwords are not the same.', detail: 'Type both again.' });
      return;
    }
    try {
      await answered(acceptInvitation({ body: { key, password, ...(isFirst ? { userName, displayName } : {}) } }));
      await answered(signIn({ body: { userName: invitation.data?.userName ?? userName, password } }));
      // Whoever was signed in at this browser before is so no longer: the page begins anew.
      window.location.replace('/');
    } catch (refusal) {
      setProblem(refusal as Problem);
    }
  }

  const dead = invitation.error as Problem | null;
  const shown = problem ?? dead;
  return (
    <main className={classes.page}>
      <title>Welcome · Dibujo</title>
      <form
        className={classes.sheet}
        onSubmit={(event) => {
          event.preventDefault();
          void accept();
        }}
      >
        <Stack gap="sm">
          <Title order={1}>Dibujo</Title>
          {invitation.data && (
            <>
              <Text c="dimmed" size="sm">
                {isFirst
                  ? 'You set this installation up: make the first administrator’s account.'
                  : `Welcome, ${invitation.data.displayName}. Choose the password with which ${invitation.data.userName} signs in.`}
              </Text>
              {isFirst && (
                <>
                  <TextInput
                    size="sm"
                    label="What people call you"
                    autoFocus
                    value={displayName}
                    onChange={(event) => setDisplayName(event.currentTarget.value)}
                  />
                  <TextInput
                    size="sm"
                    label="Name to sign in with"
                    name="userName"
                    autoComplete="username"
                    value={userName}
                    onChange={(event) => setUserName(event.currentTarget.value)}
                  />
                </>
              )}
              <PasswordInput
                size="sm"
                label="Password"
                description="At least ten characters."
                name="password"
                autoComplete="new-password"
                value={password}
                onChange={(event) => setPassword(event.currentTarget.value)}
              />
              <PasswordInput
                size="sm"
                label="The same password again"
                name="again"
                autoComplete="new-password"
                value={again}
                onChange={(event) => setAgain(event.currentTarget.value)}
              />
            </>
          )}
          {shown && (
            <Text className={classes.problem} role="alert" size="sm">
              {shown.title} {shown.detail}
            </Text>
          )}
          {invitation.data && (
            <Button size="sm" type="submit" mt="xs">
              Set the password and sign in
            </Button>
          )}
          {dead && (
            <Button size="sm" variant="default" component="a" href="/">
              To the sign-in
            </Button>
          )}
        </Stack>
      </form>
    </main>
  );
}
