import type { Definition } from '../api/generated';

/** The label of a stage, in whichever workflow it stands. */
export function stageLabel(definition: Definition, key: string): string {
  return definition.recordType.workflows.flatMap((w) => w.stages).find((stage) => stage.key === key)?.label ?? key;
}

export function fieldLabel(definition: Definition, key: string): string {
  return definition.recordType.fields.find((field) => field.key === key)?.label ?? key;
}

export function formLabel(definition: Definition, key: string): string {
  return definition.recordType.forms.find((form) => form.key === key)?.label ?? key;
}

export function roleLabel(definition: Definition, key: string): string {
  return definition.recordType.roles?.find((role) => role.key === key)?.label ?? key;
}

export function moveLabel(definition: Definition, key: string): string {
  return definition.recordType.workflows.flatMap((w) => w.moves).find((move) => move.key === key)?.label ?? key;
}
