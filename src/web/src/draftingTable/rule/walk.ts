import { createContext, useContext, useLayoutEffect, useMemo, useRef, useState, type RefObject } from 'react';

/** Leads the keyboard from blank to blank of a sentence, in the order in which they stand. */
export interface Walk {
  /** Goes on to the blank after this one, once what was picked has been drawn; by a key, the last one ends the rule. */
  goOn: (from: HTMLElement | null, byKey: boolean) => void;
  /** Goes to the first blank that says nothing yet, once it has been drawn. */
  toMissing: () => void;
  /** Goes to a blank by its name, once it has been drawn. */
  to: (blank: string) => void;
}

const nowhere: Walk = { goOn: () => undefined, toMissing: () => undefined, to: () => undefined };

export const WalkContext = createContext<Walk>(nowhere);

/** Outside of a sentence a blank leads nowhere. */
export const useWalk = (): Walk => useContext(WalkContext);

/** The blanks of the sentence; what may be added to it, or left unsaid, is none of them. */
const blanksIn = (sentence: HTMLElement): HTMLElement[] => [
  ...sentence.querySelectorAll<HTMLElement>('[data-place] button[data-blank]:not([data-further])'),
];

const isMissing = (blank: HTMLElement) => blank.dataset.missing !== undefined;

/** Whether two blanks are of one list, as two targets of an effect: of those that are filled in none is next. */
const isBeside = (one: HTMLElement, other: HTMLElement | undefined) =>
  one.dataset.blank === other?.dataset.blank &&
  one.dataset.blank !== 'detail' &&
  one.closest('[data-place]') === other?.closest('[data-place]');

type Step = { kind: 'after'; at: number; byKey: boolean } | { kind: 'missing' } | { kind: 'to'; blank: string };

/**
 * Walks through a sentence. One that is begun opens its first blank, and while it is being written each blank opens as it is reached; in one
 * that is whole it only gets the keyboard, and begins to be edited by typing.
 */
export function useSentenceWalk(sentence: RefObject<HTMLElement | null>, isBegun: boolean, onEnd: () => void): Walk {
  const [step, take] = useState<Step>();
  const [wasBegun, setWasBegun] = useState(false);
  if (isBegun && !wasBegun) {
    setWasBegun(true);
    take({ kind: 'missing' });
  }
  /** Whether it is being written: it was not whole when it was opened. */
  const isWritten = useRef(false);
  const end = useRef(onEnd);
  useLayoutEffect(() => {
    end.current = onEnd;
  });
  // With the drawing and not after it: who types on at once loses no letter.
  useLayoutEffect(() => {
    if (!step || !sentence.current) {
      return;
    }
    const blanks = blanksIn(sentence.current);
    isWritten.current ||= blanks.some(isMissing);
    const next =
      step.kind === 'after'
        ? blanks.slice(step.at + 1).find((blank) => isMissing(blank) || !isBeside(blank, blanks[step.at]))
        : step.kind === 'missing'
          ? blanks.find(isMissing)
          : blanks.findLast((blank) => blank.dataset.blank === step.blank);
    if (next && step.kind !== 'to' && isWritten.current) {
      next.click();
    } else if (next) {
      next.focus({ preventScroll: true });
    } else if (step.kind === 'after' && step.byKey) {
      end.current();
    }
  }, [step, sentence]);
  return useMemo(
    () => ({
      goOn: (from, byKey) => {
        const at = from && sentence.current ? blanksIn(sentence.current).indexOf(from) : -1;
        if (at >= 0) {
          take({ kind: 'after', at, byKey });
        }
      },
      toMissing: () => take({ kind: 'missing' }),
      to: (blank) => take({ kind: 'to', blank }),
    }),
    [sentence],
  );
}
