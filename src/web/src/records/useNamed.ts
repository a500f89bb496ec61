import { useCallback } from 'react';
import type { FieldType } from '../api/generated';
import { usePeople } from '../api/people';
import type { Value } from '../engine/answers';
import { shown } from '../writing/shown';

/** Values in words, people by their names. */
export function useNamed(): (type: FieldType | undefined, value: Value) => string {
  const nameOf = usePeople();
  return useCallback(
    (type, value) => (type?.kind === 'person' && typeof value === 'string' ? nameOf(value) : shown(type, value)),
    [nameOf],
  );
}
