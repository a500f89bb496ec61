import { createContext } from 'react';
import type { Touching } from '../draftingTable/sheet/touching';
import type { OpenRecord } from '../engine/openRecord';

/** A new record under the draft's rules, as the form is drawn: what is hidden, required or locked at that moment, and by which rules. */
export interface Drawn {
  record: OpenRecord;
  touching: Touching;
  onRule: () => void;
}

export const DrawnContext = createContext<Drawn | undefined>(undefined);
