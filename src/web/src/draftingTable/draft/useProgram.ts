import { useEffect, useState } from 'react';
import type { Definition } from '../../api/generated';
import { DraftProgram } from '../../engine/draftProgram';
import { engine } from '../../engine/pageEngine';

/** The draft in the engine, and whether no engine could be loaded. Another record type is laid out and compiled from the beginning. */
export function useProgram(definition: Definition): [DraftProgram, boolean] {
  const { recordType: type } = definition;
  const [held, setHeld] = useState(() => ({ type, program: new DraftProgram(engine, definition) }));
  const [hasFailed, setFailed] = useState(false);
  const isCurrent = held.type === type;
  const { program } = isCurrent ? held : { program: new DraftProgram(engine, definition) };
  if (!isCurrent) {
    setHeld({ type, program });
  }
  useEffect(() => {
    // While the record for the sheet is fetched.
    program.program().catch(() => setFailed(true));
    return () => program.close();
  }, [program]);
  return [program, hasFailed];
}
