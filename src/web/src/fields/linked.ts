import type { Field, LinkedType, RecordType } from '../api/generated';

/** A field of another record type as rules here look at it: what it is, not how it behaves there. */
const seen = ({ key, label, type, retired }: Field): Field => ({ key, label, type, ...(retired ? { retired } : {}) });

/** What is known of another record type: those of its fields, in its order, and those that it no longer has as they were. */
export function linkedAs(there: RecordType, keys: string[], known?: LinkedType): LinkedType {
  const left = (known?.fields ?? []).filter(({ key }) => keys.includes(key) && !there.fields.some((one) => one.key === key));
  return {
    key: there.key,
    label: there.label,
    fields: [...there.fields.filter(({ key }) => keys.includes(key)).map(seen), ...left],
  };
}

/** The record type that knows that of another one; one of which nothing is known is left out. */
export function withLinked(type: RecordType, linked: LinkedType): RecordType {
  const others = (type.linked ?? []).filter(({ key }) => key !== linked.key);
  return { ...type, linked: linked.fields.length > 0 ? [...others, linked] : others };
}

/** What has become of the fields that are known, in words; none where all of them are as they were. */
export function differing(known: LinkedType, there: RecordType): string[] {
  return known.fields.flatMap((field) => {
    const now = there.fields.find(({ key }) => key === field.key);
    return !now
      ? [`${field.label} is no longer one of its fields`]
      : now.retired && !field.retired
        ? [`${field.label} is retired`]
        : now.label !== field.label
          ? [`${field.label} is called ${now.label}`]
          : JSON.stringify(now.type) !== JSON.stringify(field.type)
            ? [`${field.label} is of another type, or has other choices`]
            : [];
  });
}
