import { useEffect, useState } from 'react';
import type { Vocabulary } from '../../api/generated';
import type { DraftProgram } from '../../engine/draftProgram';

/** What may be put into the blanks of a sentence; undefined until the engine has said so. */
export function useVocabulary(program: DraftProgram): Vocabulary | undefined {
  const [vocabulary, setVocabulary] = useState<Vocabulary>();
  useEffect(() => {
    program.vocabulary().then(setVocabulary, () => undefined);
  }, [program]);
  return vocabulary;
}
