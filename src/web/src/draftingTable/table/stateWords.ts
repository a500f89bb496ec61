import type { State } from '../../api/generated';

/** States in a word, as sentences say them. */
export const stateWords: Record<State, string> = {
  shown: 'shown',
  hidden: 'hidden',
  hiddenAndCleared: 'hidden and cleared',
  hiddenAndReset: 'hidden and reset',
  requiredToMoveOn: 'required to move on',
  requiredToSave: 'required to save',
  optional: 'optional',
  locked: 'locked',
  open: 'open',
};

export const allStates = Object.keys(stateWords) as State[];
