import { UnstyledButton } from '@mantine/core';
import { useState, type RefObject } from 'react';
import type { Hearing } from '../../engine/answers';
import { stretches } from './aligned';
import classes from './WordByWord.module.css';

interface Props {
  text: string;
  hearing: Hearing;
  /** The words, of which the first takes the keyboard. */
  bar: RefObject<HTMLDivElement | null>;
  onLeave: () => void;
}

/** What was said, word by word: each that stands for a part of the rule tells which when it is pointed at or walked to. */
export function WordByWord({ text, hearing, bar, onLeave }: Props) {
  const [current, setCurrent] = useState<number>();
  const all = stretches(text, hearing);
  const walk = (to: number) => bar.current?.querySelectorAll<HTMLElement>('button')[to]?.focus();
  const told = current === undefined ? undefined : all[current];
  if (!all.some(({ part, isUnheard }) => part !== undefined || isUnheard)) {
    return null;
  }
  return (
    <div className={classes.words}>
      <div
        ref={bar}
        role="toolbar"
        aria-label="What your words stand for"
        className={classes.bar}
        onKeyDown={(event) => {
          const step = { ArrowRight: 1, ArrowLeft: -1 }[event.key];
          const buttons = [...(bar.current?.querySelectorAll('button') ?? [])];
          if (step) {
            event.preventDefault();
            walk((buttons.indexOf(document.activeElement as HTMLButtonElement) + step + buttons.length) % buttons.length);
          } else if (event.key === 'Escape') {
            event.preventDefault();
            event.stopPropagation();
            onLeave();
          }
        }}
        onMouseLeave={() => setCurrent(undefined)}
      >
        {all.map((one, i) =>
          one.part === undefined && !one.isUnheard ? (
            <span key={`${i}-${one.text}`} className={classes.empty}>
              {one.text}
            </span>
          ) : (
            <UnstyledButton
              key={`${i}-${one.text}`}
              tabIndex={-1}
              className={classes.word}
              data-unheard={one.isUnheard || undefined}
              aria-label={`“${one.text}”: ${one.part ?? 'not understood'}`}
              onFocus={() => setCurrent(i)}
              onBlur={() => setCurrent(undefined)}
              onMouseEnter={() => setCurrent(i)}
            >
              {one.text}
            </UnstyledButton>
          ),
        )}
      </div>
      <div className={classes.told}>
        {told ? (
          <>
            “{told.text}” {told.isUnheard ? 'is not understood' : 'stands for '}
            {told.part && <b>{told.part}</b>}
          </>
        ) : (
          'Point at a word, or Alt W: for what it stands'
        )}
      </div>
    </div>
  );
}
