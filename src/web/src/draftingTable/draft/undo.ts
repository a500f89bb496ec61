import type { Definition, DraftStep } from '../../api/generated';
import { after, between, isSame } from './steps';

/** A step of one's own, forth and back. */
export interface OwnStep {
  forth: DraftStep;
  back: DraftStep;
}

export const ownStep = (before: Definition, now: Definition): OwnStep => ({
  forth: between(before, now),
  back: between(now, before),
});

export const reversed = ({ forth, back }: OwnStep): OwnStep => ({ forth: back, back: forth });

/** The draft without that step; what somebody else has changed since stays as they left it, and is counted. */
export function withoutStep(draft: Definition, { forth, back }: OwnStep): { draft: Definition; kept: number } {
  const isUntouched = (key: string) => {
    const made = forth.edits.find((edit) => edit.key === key);
    const present = draft.rules.find((rule) => rule.key === key);
    return made?.isRemoved ? present === undefined : made?.rule ? isSame(made.rule, present) : present !== undefined;
  };
  const edits = back.edits.filter(({ key }) => isUntouched(key));
  const isTypeUntouched = !back.recordType || isSame(forth.recordType, draft.recordType);
  return {
    draft: after(draft, {
      edits,
      recordType: isTypeUntouched ? back.recordType : null,
      examples: isTypeUntouched ? back.examples : null,
    }),
    kept: back.edits.length - edits.length + (isTypeUntouched ? 0 : 1),
  };
}
