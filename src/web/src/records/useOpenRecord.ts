import { useMemo } from 'react';
import type { EditionView, RecordView } from '../api/generated';
import type { FormRecord, Values } from '../engine/formRecord';
import { ServedRecord } from '../engine/servedRecord';
import { useEngine } from '../engine/useEngine';

/**
 * Opens a stored record in the browser's engine, with changes that were typed before. While the engine loads the form
 * shows the server's states and waits; where it cannot load at all, the form works with those states alone.
 */
export function useOpenRecord(
  edition: EditionView,
  stored: RecordView,
  typed: Values,
): { record: FormRecord; isWaiting: boolean } {
  const { engine, isLoading } = useEngine();
  const compiled = useMemo(() => engine?.compile(edition.definition, stored.form), [engine, edition, stored.form]);
  const record = useMemo(() => {
    const opened: FormRecord = compiled?.isUsable
      ? compiled.open(stored.values as Values, stored.setting, stored.linked)
      : new ServedRecord(stored);
    Object.entries(typed).forEach(([field, value]) => opened.change(field, value));
    return opened;
  }, [compiled, stored, typed]);
  return { record, isWaiting: isLoading };
}
