import { useLayoutEffect, useRef, type RefObject } from 'react';

/**
 * Gives what has just been drawn the keyboard, with the drawing and not after it: who types on right after a press loses no
 * letter, and none is taken for a shortcut. A `ref` of an input that opens by being drawn.
 */
export const takeFocus = (input: HTMLElement | null) => input?.focus({ preventScroll: true });

/** Gives the keyboard back to the button once the input that it opened is closed, unless something else has taken it. */
export function useFocusBack(isOpen: boolean, input: RefObject<HTMLElement | null>, button: RefObject<HTMLElement | null>) {
  const wasOpen = useRef(isOpen);
  useLayoutEffect(() => {
    const isClosed = wasOpen.current && !isOpen;
    wasOpen.current = isOpen;
    const at = document.activeElement;
    if (isClosed && (at === null || at === document.body || at === input.current)) {
      button.current?.focus({ preventScroll: true });
    }
  }, [isOpen, input, button]);
}
