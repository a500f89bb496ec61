import type { Definition, RecordType, Rule } from '../api/generated';
import { drives, touches } from '../draftingTable/element/connections';
import { partsOf } from '../engine/parts';

/** What refers to a field. */
export interface Usage {
  rules: Rule[];
  /** Labels of the forms on which it stands. */
  forms: string[];
  /** Names of the examples that mention it. */
  examples: string[];
}

/** Everything that would miss the field if it were gone. */
export function usageOf({ recordType, rules, examples }: Definition, key: string): Usage {
  const field = recordType.fields.find((one) => one.key === key);
  const elements = [
    { kind: 'field' as const, key },
    ...partsOf(field?.type.kind).map((part) => ({ kind: 'part' as const, key: `${key}.${part.key}` })),
  ];
  return {
    // In expressions and texts a field is named by its key or label as well; a search there errs on the safe side.
    rules: rules.filter(
      (rule) => elements.some((element) => touches(rule, element) || drives(rule, element)) || mentions(rule, key, field?.label),
    ),
    forms: placesOf(recordType, key).map(({ form }) => form),
    examples: (examples ?? []).filter((example) => JSON.stringify(example).includes(`"${key}"`)).map(({ name }) => name),
  };
}

const mentions = (rule: Rule, key: string, label: string | undefined) => {
  const text = JSON.stringify(rule);
  return text.includes(`"${key}"`) || text.includes(`{${key}}`) || (label !== undefined && text.includes(`«${label}»`));
};

/** Where a field stands: labels of the form and the section. */
export const placesOf = (type: RecordType, field: string): { form: string; section: string }[] =>
  type.forms.flatMap((form) =>
    form.tabs.flatMap((tab) =>
      tab.sections
        .filter((section) => section.fields.includes(field))
        .map((section) => ({ form: form.label, section: `${tab.label} › ${section.label}` })),
    ),
  );
