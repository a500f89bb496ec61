import { useQuery } from '@tanstack/react-query';
import { useEffect, useMemo } from 'react';
import { answered } from '../api/client';
import { beginRecord, readRecord, type RecordType, type RecordView } from '../api/generated';
import { afterPaint } from '../engine/afterPaint';
import type { DraftProgram } from '../engine/draftProgram';
import { OpenRecord } from '../engine/openRecord';
import { engine } from '../engine/pageEngine';
import type { View } from './TitleBlock';

/** How the record is looked at: the sheet draws the main form of the draft, which may not have the forms that are in force. */
const settingOf = (sample: RecordView, type: RecordType, view: View) => ({
  ...sample.setting,
  stage: view.stage || sample.setting.stage,
  roles: [view.role],
  isNew: view.isNew,
  form: type.forms[0]!.key,
});

/**
 * The real record on the sheet, open under the draft. It lives on through edits of rules and other ways of looking at it;
 * another record begins another. What is typed into it is a trial and never stored.
 */
export function useSample(type: RecordType, view: View, program: DraftProgram) {
  const sample = useQuery({
    queryKey: ['sample', type.key, view.record],
    queryFn: () =>
      answered(view.record === 0 ? beginRecord({ path: { key: type.key } }) : readRecord({ path: { id: view.record } })),
    placeholderData: (previous) => previous,
  }).data;
  const record = useMemo(() => {
    if (!sample) {
      return undefined;
    }
    const values = view.isNew ? {} : sample.values;
    const source = { ...sample, form: type.forms[0]!.key, values, setting: settingOf(sample, type, view) };
    return new OpenRecord(engine, type, source, {}, false);
    // Another stage or role is another way of looking at the same record: see below.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [sample, type, view.isNew]);
  useEffect(() => {
    if (!record) {
      return;
    }
    const callOff = afterPaint(() => void program.open(record).catch(() => undefined));
    return () => {
      callOff();
      record.close();
    };
  }, [record, program]);
  useEffect(() => {
    if (record && sample) {
      const setting = settingOf(sample, type, view);
      if (JSON.stringify(setting) !== JSON.stringify(record.setting)) {
        record.enter(setting);
      }
    }
  }, [record, sample, type, view]);
  return { sample, record };
}
