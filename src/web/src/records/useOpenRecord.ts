import { useEffect, useMemo, useState } from 'react';
import type { Definition, EditionView, RecordView } from '../api/generated';
import type { CompiledDefinition } from '../engine/compiledDefinition';
import type { Engine } from '../engine/engine';
import type { FormRecord, Values } from '../engine/formRecord';
import { ServedRecord } from '../engine/servedRecord';
import { useEngine } from '../engine/useEngine';

/** The definition compiled; undefined until the form has been drawn once, as the engine takes its time over the first. */
function useCompiled(engine: Engine | undefined, definition: Definition) {
  const [compiled, setCompiled] = useState<CompiledDefinition>();
  useEffect(() => {
    const timer = window.setTimeout(() => setCompiled(engine?.compile(definition)));
    return () => window.clearTimeout(timer);
  }, [engine, definition]);
  return compiled?.isOf(definition) ? compiled : undefined;
}

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
  const compiled = useCompiled(engine, edition.definition);
  const record = useMemo(() => {
    const opened: FormRecord = compiled?.isUsable
      ? compiled.open(stored.values as Values, stored.setting, stored.linked)
      : new ServedRecord(stored);
    Object.entries(typed).forEach(([field, value]) => opened.change(field, value));
    return opened;
  }, [compiled, stored, typed]);
  return { record, isWaiting: isLoading || (engine !== undefined && compiled === undefined) };
}
