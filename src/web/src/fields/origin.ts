import type { Field, RecordType } from '../api/generated';

/** The field as the edition in force has it, also where the draft gives it another key; undefined for one that only the draft has. */
export function originOf(draft: RecordType, published: RecordType | undefined, key: string): Field | undefined {
  const former = (draft.reshaping ?? []).reduceRight(
    (at, reshape) => (reshape.kind === 'field' && reshape.to === at ? reshape.from : at),
    key,
  );
  return published?.fields.find((field) => field.key === former);
}
