import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { answered } from '../api/client';
import { beginRecord, readRecord } from '../api/generated';
import type { CompiledDefinition } from '../engine/compiledDefinition';
import type { Value, Values } from '../engine/formRecord';
import type { View } from './TitleBlock';

/** The real record on the sheet, opened under the draft as it is now. What is typed into it is a trial and never stored. */
export function useSample(recordType: string, view: View, compiled: CompiledDefinition) {
  const sample = useQuery({
    queryKey: ['sample', recordType, view.record],
    queryFn: () =>
      answered(view.record === 0 ? beginRecord({ path: { key: recordType } }) : readRecord({ path: { id: view.record } })),
    placeholderData: (previous) => previous,
  }).data;
  // A trial belongs to its record: another record begins another.
  // eslint-disable-next-line react-hooks/exhaustive-deps
  const trial = useMemo(() => new Map<string, Value>(), [sample?.id, view.isNew]);
  const record = useMemo(() => {
    if (!sample) {
      return undefined;
    }
    const setting = {
      ...sample.setting,
      stage: view.stage || sample.setting.stage,
      roles: [view.role],
      isNew: view.isNew,
      // The sheet draws the main form of the draft, which may not have the forms that are in force.
      form: compiled.definition.recordType.forms[0]?.key,
    };
    const opened = compiled.open(view.isNew ? {} : (sample.values as Values), setting, sample.linked);
    opened.goOn(trial);
    return opened;
  }, [sample, compiled, view.stage, view.role, view.isNew, trial]);
  return { sample, record, trial };
}
