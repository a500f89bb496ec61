import type { DraftStep } from '../../api/generated';
import type { Shelf } from './sharedDraft';
import type { OwnStep } from './undo';

/** Keeps a draft's unsent edits beyond the window, and one's own steps beyond a reload of it. */
export function shelfOf(recordType: string): Shelf {
  const name = `dibujo draft ${recordType}`;
  return {
    get unsent() {
      return read<DraftStep>(localStorage, name);
    },
    set unsent(step: DraftStep | null) {
      write(localStorage, name, step);
    },
    get own() {
      return read<{ past: OwnStep[]; future: OwnStep[] }>(sessionStorage, name);
    },
    set own(steps: { past: OwnStep[]; future: OwnStep[] } | null) {
      write(sessionStorage, name, steps);
    },
  };
}

function read<T>(storage: Storage, name: string): T | null {
  try {
    return JSON.parse(storage.getItem(name) ?? 'null') as T | null;
  } catch {
    return null;
  }
}

function write(storage: Storage, name: string, value: unknown) {
  try {
    if (value === null) {
      storage.removeItem(name);
    } else {
      storage.setItem(name, JSON.stringify(value));
    }
  } catch {
    // A full shelf keeps nothing; what is written is sent all the same.
  }
}
