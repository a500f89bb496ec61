import { useCallback, useEffect, useState, useSyncExternalStore } from 'react';
import { answered } from '../../api/client';
import { makeDraftStep, readDraft, readDraftSteps, type DraftView, type RecordType, type Rule } from '../../api/generated';
import { useClosingWarning } from '../../frame/useClosingWarning';
import { SharedDraft } from './sharedDraft';
import { shelfOf } from './shelf';
import { useLive } from './useLive';

/** Drafts that were left, until what was written into them has arrived, by record type. */
const leaving = new Map<string, Promise<void>>();

/** Waits until a draft that was left has sent all it can. Whoever read it before would take one's own edits for somebody else's. */
export const closed = (key: string) => leaving.get(key);

/** The draft under the administrator's hands, shared with all others who have it open: every change can be undone, and stores itself after a moment. */
export function useDraft(key: string, stored: DraftView) {
  const [shared] = useState(
    () =>
      new SharedDraft(
        stored,
        {
          make: (step) => answered(makeDraftStep({ path: { key }, body: step })),
          news: (after) => answered(readDraftSteps({ path: { key }, query: { after } })),
          read: () => answered(readDraft({ path: { key } })),
        },
        shelfOf(key),
      ),
  );
  const state = useSyncExternalStore(shared.subscribe, shared.present);
  useLive(key, shared.pull);
  // Who goes to another page of ours loses nothing: what was not sent is sent then, and kept until it has arrived.
  useClosingWarning(!state.isSaved);
  useEffect(() => () => void leaving.set(key, shared.close()), [key, shared]);
  const changeRules = useCallback((rules: Rule[]) => shared.change({ ...shared.present().definition, rules }), [shared]);
  const changeType = useCallback(
    (recordType: RecordType) => shared.change({ ...shared.present().definition, recordType }),
    [shared],
  );
  return { shared, ...state, changeRules, changeType };
}
