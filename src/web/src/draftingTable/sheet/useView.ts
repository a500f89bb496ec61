import { useCallback, useState } from 'react';
import { useNavigate } from 'react-router-dom';
import type { RecordType } from '../../api/generated';
import { addressOf, viewOf, type View } from './view';

/** How the sheet is seen, kept in the address. */
export function useView(type: RecordType, first: number): [View, (change: Partial<View>) => void] {
  // Read once and written after: whoever draws the sheet need not be told of its address.
  const navigate = useNavigate();
  const [view, setView] = useState(() => viewOf(new URLSearchParams(window.location.search), type, first));
  const change = useCallback(
    (part: Partial<View>) =>
      setView((before) => {
        const next = { ...before, ...part };
        // After this drawing, since the address belongs to somebody else.
        queueMicrotask(() => void navigate({ search: addressOf(next, type, first).toString() }, { replace: true }));
        return next;
      }),
    [navigate, type, first],
  );
  return [view, change];
}
