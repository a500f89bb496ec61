import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useEffect, useMemo, useRef } from 'react';
import { answered } from '../../api/client';
import { beginRecord, readRecord, type RecordType, type RecordView, type Setting } from '../../api/generated';
import { afterPaint } from '../../engine/afterPaint';
import type { Values } from '../../engine/answers';
import type { DraftProgram } from '../../engine/draftProgram';
import { OpenRecord, trialOf } from '../../engine/openRecord';
import { engine } from '../../engine/pageEngine';
import { siteTime } from '../../writing/siteTime';
import type { View } from './view';

/** How the record is looked at. */
function settingOf(sample: RecordView, view: View): Setting {
  const { setting } = sample;
  return {
    ...setting,
    workflow: view.workflow || setting.workflow,
    stage: view.stage || setting.stage,
    move: view.move || null,
    roles: view.roles,
    person: view.person || setting.person,
    use: view.isReading ? 'reading' : 'filling-in',
    isNew: view.record === 0,
    form: view.form,
    now: view.date ? `${view.date}T12:00:00` : setting.now,
  };
}

/** A new record of a type that the server has only as a draft. */
function unpublished(type: RecordType): RecordView {
  const [workflow] = type.workflows;
  const form = type.forms[0]?.key ?? '';
  return {
    id: 0,
    recordType: type.key,
    form,
    forms: [form],
    edition: 0,
    version: 0,
    values: {},
    setting: {
      workflow: workflow?.key ?? '',
      stage: workflow?.stages[0]?.key ?? '',
      isNew: true,
      channel: 'form',
      now: siteTime(),
    },
    linked: [],
    states: [],
    changedAt: null,
    changedBy: null,
  };
}

/**
 * The real record on the sheet, open under the draft. It lives on through edits of rules and other ways of looking at it;
 * another record begins another. What is typed into it is a trial and never stored; it is kept when one goes to another
 * record and comes back.
 */
export function useSample(
  type: RecordType,
  view: View,
  program: DraftProgram,
  isPublished: boolean,
  onTried: (values: Values) => void,
) {
  const found = useQuery({
    queryKey: ['sample', type.key, view.record, isPublished],
    queryFn: () =>
      view.record !== 0
        ? answered(readRecord({ path: { id: view.record } }))
        : isPublished
          ? answered(beginRecord({ path: { key: type.key } }))
          : unpublished(type),
    placeholderData: keepPreviousData,
  });
  const sample = found.data;
  /** What was tried on each record. */
  const tried = useRef(new Map<number, Values>([[view.record, view.tried]]));
  const { form } = view;
  const record = useMemo(() => {
    if (!sample) {
      return undefined;
    }
    const source = { ...sample, form, setting: settingOf(sample, view) };
    // eslint-disable-next-line react-hooks/refs -- what was tried before, once, when the record is opened
    return new OpenRecord(engine, type, source, trialOf(source, tried.current.get(sample.id ?? 0)), false);
    // Another stage or role is another way of looking at the same record: see below.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [sample, type, form]);
  useEffect(() => {
    if (!record || !sample) {
      return;
    }
    const callOff = afterPaint(() => void program.open(record).catch(() => undefined));
    let timer = 0;
    const stop = record.subscribe('any', () => {
      tried.current.set(sample.id ?? 0, Object.fromEntries(record.trial));
      window.clearTimeout(timer);
      timer = window.setTimeout(() => onTried(Object.fromEntries(record.trial)), 400);
    });
    return () => {
      callOff();
      stop();
      window.clearTimeout(timer);
      record.close();
    };
  }, [record, sample, program, onTried]);
  useEffect(() => {
    if (record && sample) {
      const setting = settingOf(sample, view);
      if (JSON.stringify(setting) !== JSON.stringify(record.setting)) {
        record.enter(setting);
      }
    }
  }, [record, sample, view]);
  return { sample, record };
}
