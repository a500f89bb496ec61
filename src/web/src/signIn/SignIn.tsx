import { Text, Title } from '@mantine/core';
import classes from './SignIn.module.css';
import { SignInForm } from './SignInForm';

/** Where everybody comes in. */
export function SignIn() {
  return (
    <main className={classes.page}>
      <title>Sign in · Dibujo</title>
      <div className={classes.sheet}>
        <SignInForm>
          <Title order={1}>Dibujo</Title>
          <Text c="dimmed" size="sm">
            Forms that follow their rules.
          </Text>
        </SignInForm>
      </div>
    </main>
  );
}
