import type { OwnStep, StepStore } from './undo';

/** Keeps one person's own steps in a draft beyond a reload of the window. */
export function stepStore(person: string, recordType: string): StepStore {
  const name = `dibujo steps ${JSON.stringify([person, recordType])}`;
  return {
    get own() {
      try {
        return JSON.parse(sessionStorage.getItem(name) ?? 'null') as { past: OwnStep[]; future: OwnStep[] } | null;
      } catch {
        return null;
      }
    },
    set own(steps) {
      try {
        sessionStorage.setItem(name, JSON.stringify(steps));
      } catch {
        // A full window keeps none: nothing is lost but the way back after a reload.
      }
    },
  };
}
