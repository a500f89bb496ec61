import { useEffect, useState } from 'react';
import type { Ways } from '../engine/answers';
import type { DraftProgram } from '../engine/draftProgram';

const none: Ways[] = [];

/** Where the moves of each workflow lead; what was known so far until the engine has said so of the draft as it is. */
export function useWays(program: DraftProgram): Ways[] {
  const [ways, setWays] = useState(none);
  useEffect(() => {
    let isWanted = true;
    program.ways().then(
      (found) => isWanted && setWays(found),
      () => undefined,
    );
    return () => {
      isWanted = false;
    };
  }, [program]);
  return ways;
}
