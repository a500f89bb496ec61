import type { CompilationReport } from '../api/generated';

/** What may be put into the blanks of a sentence, as the engine says. */
export type Vocabulary = CompilationReport['vocabulary'];

export type SubjectOffer = Vocabulary['subjects'][number];

export type SentencePart = CompilationReport['sentences'][number][number];
