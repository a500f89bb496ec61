import type { Definition, DraftStep, RuleEdit } from '../../api/generated';
import type { Base, Edit } from '../../pending/edit';
import type { Merged } from '../../pending/pending';
import { mergeTypes } from './mergeTypes';
import { between, isSame } from './steps';

/** What is done to one rule of a draft, to its record type, or to its examples. */
export type DraftEdit = Omit<RuleEdit, 'key' | 'base'> & Pick<DraftStep, 'recordType' | 'examples'>;

const [ruleKey, typeKey, examplesKey] = ['rule ', 'record type', 'examples'];

/** A draft as the edits of it are made on it. */
export function baseOf(definition: Definition, version: number): Base<DraftEdit> {
  const rules = new Map(definition.rules.map((rule) => [rule.key, rule]));
  return {
    version,
    value(key) {
      if (key === typeKey) {
        return { recordType: definition.recordType };
      }
      if (key === examplesKey) {
        return { examples: definition.examples ?? [] };
      }
      const rule = rules.get(key.slice(ruleKey.length));
      return rule ? { rule } : { isRemoved: true };
    },
  };
}

/** Whether two edits come to the same, wherever the rule is put: its place is nobody's. */
export function sameEdit(one: DraftEdit | null | undefined, other: DraftEdit | null | undefined): boolean {
  const said = ({ rule, isRemoved, recordType, examples }: DraftEdit) => ({
    rule,
    isRemoved: isRemoved || null,
    recordType,
    examples,
  });
  return one === other || (!!one && !!other && isSame(said(one), said(other)));
}

/** The edits that lead from one draft to another, in the order in which they are made. */
export function editsOf(before: Definition, after: Definition): [string, DraftEdit][] {
  const { edits, recordType, examples } = between(before, after);
  return [
    ...edits.map(({ key, rule, isRemoved, isPlaced, after }): [string, DraftEdit] => [
      ruleKey + key,
      { rule, isRemoved, isPlaced, after },
    ]),
    ...(recordType ? [[typeKey, { recordType }] as [string, DraftEdit]] : []),
    ...(examples ? [[examplesKey, { examples }] as [string, DraftEdit]] : []),
  ];
}

/** What was made of the record type here and by others, as one: they collide only where both made something of the same part. */
export function mergeEdits(key: string, was: DraftEdit, mine: DraftEdit, theirs: DraftEdit): Merged<DraftEdit> | undefined {
  if (key !== typeKey || !was.recordType || !mine.recordType || !theirs.recordType) {
    return undefined;
  }
  const { merged, collides } = mergeTypes(was.recordType, mine.recordType, theirs.recordType);
  return { value: { recordType: merged }, collides };
}

/** Edits as the server takes them, each with the version that its editor knew. */
export function stepOf(edits: ReadonlyMap<string, Edit<DraftEdit>>): DraftStep {
  const [type, examples] = [edits.get(typeKey), edits.get(examplesKey)];
  return {
    edits: [...edits]
      .filter(([key]) => key.startsWith(ruleKey))
      .map(([key, { value, since }]) => ({ ...value, key: key.slice(ruleKey.length), base: since })),
    ...(type || examples ? { recordTypeBase: Math.min(type?.since ?? Infinity, examples?.since ?? Infinity) } : {}),
    ...(type ? { recordType: type.value.recordType, recordTypeWas: type.base?.recordType ?? null } : {}),
    ...(examples ? { examples: examples.value.examples } : {}),
  };
}
