import { useCallback, useEffect, useState, useSyncExternalStore } from 'react';
import { answered } from '../../api/client';
import { makeDraftStep, readDraft, readDraftSteps, type DraftView, type RecordType, type Rule } from '../../api/generated';
import { useSignedIn } from '../../api/signedIn';
import { useClosingWarning } from '../../frame/useClosingWarning';
import { Shelf } from '../../pending/shelf';
import { withoutLostWords } from '../line/otherWords';
import { SharedDraft } from './sharedDraft';
import { stepStore } from './stepStore';
import { useLive } from './useLive';

/** Drafts that were left, until what was written into them has arrived, by record type. */
const leaving = new Map<string, Promise<void>>();

/** Waits until a draft that was left has sent all it can. Whoever read it before would take one's own edits for somebody else's. */
export const closed = (key: string) => leaving.get(key);

/** The draft under the administrator's hands, shared with all others who have it open: every change can be undone, and stores itself after a moment. */
export function useDraft(key: string, stored: DraftView) {
  const person = useSignedIn().data?.person?.userName ?? '';
  const [shared] = useState(
    () =>
      new SharedDraft(
        stored,
        {
          make: (step, known) => answered(makeDraftStep({ path: { key }, query: { after: known }, body: step })),
          news: (after) => answered(readDraftSteps({ path: { key }, query: { after } })),
          read: () => answered(readDraft({ path: { key } })),
        },
        new Shelf(person, `draft ${key}`),
        stepStore(person, key),
      ),
  );
  const state = useSyncExternalStore(shared.subscribe, shared.present);
  const [place, stand] = useState('');
  const here = useLive(key, place, shared.pull);
  // Who goes to another page of ours loses nothing: what was not sent is sent then, and kept until it has arrived.
  useClosingWarning(!state.isSaved);
  useEffect(() => {
    window.addEventListener('pagehide', shared.keep);
    return () => {
      window.removeEventListener('pagehide', shared.keep);
      leaving.set(key, shared.close());
    };
  }, [key, shared]);
  const changeRules = useCallback((rules: Rule[]) => shared.change({ ...shared.present().definition, rules }), [shared]);
  const changeType = useCallback(
    (recordType: RecordType) => shared.change({ ...shared.present().definition, recordType: withoutLostWords(recordType) }),
    [shared],
  );
  return {
    shared,
    ...state,
    changeRules,
    changeType,
    /** Who else has the draft open, and where. */
    others: here.filter((one) => one.person !== person),
    /** Says where one is, for the others: a sheet, and behind a stroke a rule. */
    stand,
  };
}
