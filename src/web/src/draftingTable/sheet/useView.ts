import { useCallback, useState } from 'react';
import { useSearchParams } from 'react-router-dom';
import type { RecordType } from '../../api/generated';
import { addressOf, viewOf, type View } from './view';

/** How the sheet is seen, kept in the address. */
export function useView(type: RecordType, first: number): [View, (change: Partial<View>) => void] {
  const [address, setAddress] = useSearchParams();
  const [view, setView] = useState(() => viewOf(address, type, first));
  const change = useCallback(
    (part: Partial<View>) =>
      setView((before) => {
        const next = { ...before, ...part };
        // After this drawing, since the address belongs to somebody else.
        queueMicrotask(() => setAddress(addressOf(next, type, first), { replace: true }));
        return next;
      }),
    [setAddress, type, first],
  );
  return [view, change];
}
