import { useCallback } from 'react';
import type { FieldType } from '../api/generated';
import { siteTime } from '../writing/siteTime';
import type { Reading } from './answers';
import { engine } from './pageEngine';

/** Reads what the person has typed outside of any record, as a value of that type. */
export const useReading = (type: FieldType): ((text: string) => Promise<Reading>) =>
  useCallback(
    (text: string) =>
      engine
        .ask('read', text, type, siteTime().slice(0, 10))
        .catch((): Reading => ({ reason: 'Nothing can be read at this moment. Load the page again.' })),
    [type],
  );
