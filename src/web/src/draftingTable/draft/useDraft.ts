import { useCallback, useEffect, useLayoutEffect, useReducer, useRef, useState } from 'react';
import { answered, type Problem } from '../../api/client';
import { useUnsavedWarning } from '../../frame/useUnsavedWarning';
import { saveDraft, type Definition, type DraftView, type RecordType, type Rule } from '../../api/generated';
import { walk } from './history';

const pause = 500;

/** The draft under the administrator's hands: every change can be undone, and stores itself after a moment. */
export function useDraft(key: string, stored: DraftView) {
  const [history, step] = useReducer(walk, { past: [], present: stored.definition, future: [] });
  const [problem, setProblem] = useState<Problem>();
  const [savedAs, setSavedAs] = useState(stored.definition);
  const version = useRef(stored.version);
  const saving = useRef<Promise<void>>(Promise.resolve());
  const { present } = history;

  /** Stores the draft now, after whatever is being stored already; true if it is stored then. */
  const store = useCallback(
    (definition: Definition) => {
      saving.current = saving.current.then(async () => {
        try {
          const view = await answered(saveDraft({ path: { key }, body: { version: version.current, definition } }));
          version.current = view.version;
          setSavedAs(definition);
          setProblem(undefined);
        } catch (refusal) {
          setProblem(refusal as Problem);
        }
      });
      return saving.current;
    },
    [key],
  );

  useEffect(() => {
    if (present === savedAs || problem?.status === 409) {
      return;
    }
    const timer = window.setTimeout(() => void store(present), pause);
    return () => window.clearTimeout(timer);
  }, [present, savedAs, problem, store]);

  useUnsavedWarning(present !== savedAs);

  const latest = useRef(present);
  useLayoutEffect(() => {
    latest.current = present;
  }, [present]);
  const changeRules = useCallback((rules: Rule[]) => step({ kind: 'change', definition: { ...latest.current, rules } }), []);
  const changeType = useCallback(
    (recordType: RecordType) => step({ kind: 'change', definition: { ...latest.current, recordType } }),
    [],
  );
  const amend = useCallback((rule: string, change: Partial<Rule>) => step({ kind: 'amend', rule, change }), []);

  return {
    definition: present,
    changeRules,
    changeType,
    amend,
    undo: history.past.length > 0 ? () => step({ kind: 'undo' }) : undefined,
    redo: history.future.length > 0 ? () => step({ kind: 'redo' }) : undefined,
    isSaved: present === savedAs,
    problem,
    /** The version to be published, once everything is stored. */
    async settle() {
      await saving.current;
      if (present !== savedAs) {
        await store(present);
      }
      return version.current;
    },
    published(next: number) {
      version.current = next;
    },
  };
}
