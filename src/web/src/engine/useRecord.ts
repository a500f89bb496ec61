import { useCallback, useSyncExternalStore } from 'react';
import type { ElementKind } from '../api/generated';
import type { ElementState } from './elementState';
import type { ContainerView, FieldView, Summary } from './drawnRecord';
import type { OpenRecord } from './openRecord';

function useTopic<T>(record: OpenRecord, topic: string, look: () => T): T {
  const subscribe = useCallback((listener: () => void) => record.subscribe(topic, listener), [record, topic]);
  return useSyncExternalStore(subscribe, look);
}

/** What is drawn of a field; draws anew when something in it differs, and at nothing else. */
export const useField = (record: OpenRecord, key: string): FieldView => useTopic(record, `field:${key}`, () => record.field(key));

/** What is drawn of a section or tab, or of the form (any key); draws anew when something in it differs. */
export const useContainer = (record: OpenRecord, kind: 'section' | 'tab' | 'form', key: string): ContainerView =>
  useTopic(record, kind === 'form' ? 'form:' : `${kind}:${key}`, () => record.container(kind, key));

/** The state of an element; draws anew when it differs. */
export const useElement = (record: OpenRecord, kind: ElementKind, key: string): ElementState =>
  useTopic(record, kind === 'part' ? `field:${key.split('.')[0]!}` : kind === 'form' ? 'form:' : `${kind}:${key}`, () =>
    record.state(kind, key),
  );

/** What is so of the record as a whole. */
export const useSummary = (record: OpenRecord): Summary => useTopic(record, 'record', record.whole);

/** Which case of the rule at that place is in force; -1 for none. */
export const useCase = (record: OpenRecord, rule: number): number =>
  useTopic(record, `rule:${rule}`, () => record.caseInForce(rule));

/** Something plain that follows from the record; draws anew when it is another, however often the record changes. */
export const useFromRecord = <T extends string | number | boolean>(record: OpenRecord, look: () => T, topic = 'any'): T =>
  useTopic(record, topic, look);
