import type { RecordType } from '../api/generated';

/** Whatever says of which record type it is. */
interface Typed {
  recordType: RecordType;
}

/** The label of a stage, in whichever workflow it stands. */
export function stageLabel({ recordType }: Typed, key: string): string {
  return recordType.workflows.flatMap((w) => w.stages).find((stage) => stage.key === key)?.label ?? key;
}

export function fieldLabel({ recordType }: Typed, key: string): string {
  return recordType.fields.find((field) => field.key === key)?.label ?? key;
}

export function formLabel({ recordType }: Typed, key: string): string {
  return recordType.forms.find((form) => form.key === key)?.label ?? key;
}

export function roleLabel({ recordType }: Typed, key: string): string {
  return recordType.roles?.find((role) => role.key === key)?.label ?? key;
}

export function moveLabel({ recordType }: Typed, key: string): string {
  return recordType.workflows.flatMap((w) => w.moves).find((move) => move.key === key)?.label ?? key;
}
