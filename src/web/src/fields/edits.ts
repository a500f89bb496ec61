import type { Definition, Field, FieldType, RecordType } from '../api/generated';

/** The record type with another field of that key. */
export const withField = (type: RecordType, key: string, change: Partial<Field>): RecordType => ({
  ...type,
  fields: type.fields.map((field) => (field.key === key ? { ...field, ...change } : field)),
});

/** The record type with the field at the end of that section of the main form, and nowhere else on it; on no section for none. */
export function placed(type: RecordType, field: string, section: string | null): RecordType {
  return {
    ...type,
    forms: type.forms.map((form, i) =>
      i > 0
        ? form
        : {
            ...form,
            tabs: form.tabs.map((tab) => ({
              ...tab,
              sections: tab.sections.map((one) => {
                const others = one.fields.filter((key) => key !== field);
                return one.key !== section
                  ? { ...one, fields: others }
                  : one.fields.includes(field)
                    ? one
                    : { ...one, fields: [...others, field] };
              }),
            })),
          },
    ),
  };
}

/** Key of the section of the main form on which a field stands; null for none. */
export const sectionOf = (type: RecordType, field: string): string | null =>
  type.forms[0]?.tabs.flatMap((tab) => tab.sections).find((section) => section.fields.includes(field))?.key ?? null;

/** The record type with the field retired, and off every form; or offered again, and in the margin. */
export const retired = (type: RecordType, key: string, isRetired: boolean): RecordType => ({
  ...withField(type, key, { retired: isRetired }),
  forms: isRetired
    ? type.forms.map((form) => ({
        ...form,
        tabs: form.tabs.map((tab) => ({
          ...tab,
          sections: tab.sections.map((section) =>
            section.fields.includes(key) ? { ...section, fields: section.fields.filter((field) => field !== key) } : section,
          ),
        })),
      }))
    : type.forms,
});

/** The record type without a field that nothing uses. */
export const withoutField = (type: RecordType, key: string): RecordType => ({
  ...placed(type, key, null),
  fields: type.fields.filter((field) => field.key !== key),
});

/** A definition in which the field has another type; a default of the former type goes with it. */
export const withType = (draft: Definition, key: string, type: FieldType): Definition => ({
  ...draft,
  recordType: {
    ...draft.recordType,
    fields: draft.recordType.fields.map((field) =>
      field.key !== key ? field : { ...field, type, default: field.type.kind === type.kind ? field.default : null },
    ),
  },
});
