import { ActionIcon, Group, Tooltip, useComputedColorScheme, useMantineColorScheme } from '@mantine/core';
import { IconLogout, IconMoon, IconSun } from '@tabler/icons-react';
import { useEffect, useState } from 'react';
import { Link, Outlet } from 'react-router-dom';
import { useSignedIn, useSignOut } from '../api/signedIn';
import { engine } from '../engine/pageEngine';
import { SignedOut } from '../signIn/SignedOut';
import classes from './Frame.module.css';
import { Strip } from './strip';

/** How long the first screen has the processor for itself before the engine is loaded, in milliseconds. */
const pause = 700;

/** The strip above every screen: where one is, who one is. */
export function Frame() {
  const person = useSignedIn().data?.person;
  const signOut = useSignOut();
  const [strip, setStrip] = useState<HTMLElement | null>(null);
  const { setColorScheme } = useMantineColorScheme();
  const scheme = useComputedColorScheme('light');
  useEffect(() => {
    // While people read a list; the form that they open next need not wait for it.
    const timer = window.setTimeout(() => (engine.isRunning ? undefined : void engine.warm()), pause);
    return () => window.clearTimeout(timer);
  }, []);
  return (
    <div className={classes.frame}>
      <header className={classes.strip}>
        <Link to="/" className={classes.name}>
          Dibujo
        </Link>
        <div ref={setStrip} className={classes.place} />
        <Group gap="xs" wrap="nowrap">
          {person?.isAdministrator && (
            <>
              <Link to="/people" className={classes.person}>
                People
              </Link>
              <Link to="/audit-trail" className={classes.person}>
                Audit trail
              </Link>
            </>
          )}
          <Link to="/account" className={classes.person} title="Your account">
            {person?.displayName}
          </Link>
          <Tooltip label={scheme === 'dark' ? 'Light paper' : 'Blueprint'}>
            <ActionIcon
              variant="subtle"
              aria-label={scheme === 'dark' ? 'Use light paper' : 'Use blueprint'}
              onClick={() => setColorScheme(scheme === 'dark' ? 'light' : 'dark')}
            >
              {scheme === 'dark' ? <IconSun size={18} /> : <IconMoon size={18} />}
            </ActionIcon>
          </Tooltip>
          <Tooltip label="Sign out">
            <ActionIcon variant="subtle" aria-label="Sign out" onClick={() => void signOut()}>
              <IconLogout size={18} />
            </ActionIcon>
          </Tooltip>
        </Group>
      </header>
      <Strip value={strip}>
        <Outlet />
      </Strip>
      <SignedOut />
    </div>
  );
}
