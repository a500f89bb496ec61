import { Text } from '@mantine/core';
import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { onSignedIn, onSignedOut } from '../api/client';
import { useSignedIn } from '../api/signedIn';
import { Dialog } from '../frame/Dialog';
import { SignInForm } from './SignInForm';

/** Lets a person whose sign-in has ended sign in again where they are, with everything on the page as it was. */
export function SignedOut() {
  const [isOut, setOut] = useState(false);
  /** Who is signed in instead. */
  const [other, setOther] = useState<string>();
  const queries = useQueryClient();
  const person = useSignedIn().data?.person?.userName;
  // Who it was is kept while nobody is signed in.
  const [was, setWas] = useState(person);
  if (person !== undefined && person !== was) {
    setWas(person);
  }
  useEffect(() => {
    const out = (who: string | undefined) => {
      setOther(who);
      setOut(true);
    };
    const stops = [onSignedOut(out), onSignedIn(() => setOut(false))];
    return () => stops.forEach((stop) => stop());
  }, []);
  return (
    <Dialog
      title={other ? `This browser is signed in as ${other} now` : 'Your sign-in has ended'}
      isOpen={isOut}
      onClose={() => setOut(false)}
    >
      <SignInForm
        person={was}
        onSignedIn={() => {
          setOut(false);
          void queries.invalidateQueries({ predicate: ({ state }) => state.status === 'error' });
        }}
      >
        <Text size="sm">
          Sign in again to go on: everything on the page stays as it is, and what you tried last was not done. Where somebody else
          signs in here, the page is theirs, and what you typed is kept for you at this browser.
        </Text>
      </SignInForm>
    </Dialog>
  );
}
