/** What an element is like now, for this person. */
export interface ElementState {
  isVisible: boolean;
  isLocked: boolean;
  requirement: 'optional' | 'toMoveOn' | 'toSave';
  isSuspended: boolean;
  isSetAside: boolean;
  /** Whether it is needed for named moves only. */
  isForSomeMoves: boolean;
}

const requirements = ['optional', 'toMoveOn', 'toSave'] as const;
const known = new Map<number, ElementState>();

/** The state as the engine and the server pack it, see ElementState.Bits in Dibujo.Core; the same object for the same bits. */
export function readBits(bits: number): ElementState {
  let state = known.get(bits);
  if (!state) {
    state = {
      isVisible: (bits & 1) !== 0,
      isLocked: (bits & 2) !== 0,
      requirement: requirements[(bits >> 2) & 3] ?? 'optional',
      isSuspended: (bits & 16) !== 0,
      isSetAside: (bits & 32) !== 0,
      isForSomeMoves: (bits & 64) !== 0,
    };
    known.set(bits, state);
  }
  return state;
}

/** For what stands on no form. */
export const absent: ElementState = readBits(0);

/** Whether the element asks to be filled in at this moment. */
export const asks = (state: ElementState) => state.requirement !== 'optional' && !state.isSuspended && state.isVisible;
