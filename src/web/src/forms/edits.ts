import type { Form, RecordType, Section, Tab } from '../api/generated';
import { keyFor } from '../fields/keyFor';

/** The record type with another form in the place of the one of that key. */
export const withForm = (type: RecordType, key: string, change: (form: Form) => Form): RecordType => ({
  ...type,
  forms: type.forms.map((form) => (form.key === key ? change(form) : form)),
});

/** The form with every section changed. */
const eachSection = (form: Form, change: (section: Section, tab: Tab) => Section): Form => ({
  ...form,
  tabs: form.tabs.map((tab) => ({ ...tab, sections: tab.sections.map((section) => change(section, tab)) })),
});

export const withTab = (form: Form, key: string, change: Partial<Tab>): Form => ({
  ...form,
  tabs: form.tabs.map((tab) => (tab.key === key ? { ...tab, ...change } : tab)),
});

export const withSection = (form: Form, key: string, change: Partial<Section>): Form =>
  eachSection(form, (section) => (section.key === key ? { ...section, ...change } : section));

/** The form with a field before another one, or at a section's end; in the margin, on no section, for none. */
export function withFieldAt(form: Form, field: string, section: string | null, before: string | null): Form {
  return eachSection(form, (one) => {
    const others = one.fields.filter((key) => key !== field);
    if (one.key !== section) {
      return others.length === one.fields.length ? one : { ...one, fields: others };
    }
    const at = before === null || before === field ? others.length : others.indexOf(before);
    const place = before === field ? one.fields.indexOf(field) : at < 0 ? others.length : at;
    return { ...one, fields: [...others.slice(0, place), field, ...others.slice(place)] };
  });
}

const takenKeys = (form: Form) =>
  new Set([...form.tabs.map(({ key }) => key), ...form.tabs.flatMap(({ sections }) => sections.map(({ key }) => key))]);

export const withNewTab = (form: Form, label: string): Form => ({
  ...form,
  tabs: [...form.tabs, { key: keyFor(label, takenKeys(form)), label, sections: [] }],
});

export const withNewSection = (form: Form, tab: string, label: string): Form => ({
  ...form,
  tabs: form.tabs.map((one) =>
    one.key === tab ? { ...one, sections: [...one.sections, { key: keyFor(label, takenKeys(form)), label, fields: [] }] } : one,
  ),
});

const moved = <T>(list: T[], at: number, by: number): T[] => {
  const others = list.filter((_, i) => i !== at);
  const to = Math.max(0, Math.min(others.length, at + by));
  return [...others.slice(0, to), list[at]!, ...others.slice(to)];
};

/** The form with the tab that many places further on. */
export const withTabMoved = (form: Form, key: string, by: number): Form => ({
  ...form,
  tabs: moved(
    form.tabs,
    form.tabs.findIndex((tab) => tab.key === key),
    by,
  ),
});

/** The form with the section that many places further on within its tab. */
export const withSectionMoved = (form: Form, key: string, by: number): Form => ({
  ...form,
  tabs: form.tabs.map((tab) => {
    const at = tab.sections.findIndex((section) => section.key === key);
    return at < 0 ? tab : { ...tab, sections: moved(tab.sections, at, by) };
  }),
});

/** The form with a tab where another one is: before that, or behind it where it stood before. */
export function withTabAt(form: Form, key: string, onto: string): Form {
  const [from, to] = [form.tabs.findIndex((tab) => tab.key === key), form.tabs.findIndex((tab) => tab.key === onto)];
  return from < 0 || to < 0 ? form : withTabMoved(form, key, to - from);
}

/** The form with a section where another one is, or on an empty tab; each is named as it is dragged. */
export function withSectionAt(form: Form, key: string, onto: string): Form {
  const section = form.tabs.flatMap(({ sections }) => sections).find((one) => one.key === key);
  const tab = form.tabs.find(
    (one) => `move tab ${one.key}` === onto || one.sections.some((other) => `move section ${other.key}` === onto),
  );
  if (!section || !tab) {
    return form;
  }
  const at = tab.sections.findIndex((one) => `move section ${one.key}` === onto);
  const others = form.tabs.map((one) => ({ ...one, sections: one.sections.filter((other) => other.key !== key) }));
  const to = at < 0 ? 0 : at;
  return {
    ...form,
    tabs: others.map((one) =>
      one.key === tab.key ? { ...one, sections: [...one.sections.slice(0, to), section, ...one.sections.slice(to)] } : one,
    ),
  };
}

/** The record type whose main form is that one. */
export const withMainForm = (type: RecordType, key: string): RecordType => ({
  ...type,
  forms: type.forms.toSorted((one, other) => Number(other.key === key) - Number(one.key === key)),
});

/** The form with the section at the end of that tab. */
export function withSectionOn(form: Form, key: string, tab: string): Form {
  const section = form.tabs.flatMap(({ sections }) => sections).find((one) => one.key === key);
  return section
    ? {
        ...form,
        tabs: form.tabs.map((one) => {
          const others = one.sections.filter((other) => other.key !== key);
          return { ...one, sections: one.key === tab ? [...others, section] : others };
        }),
      }
    : form;
}

/** The form with the section on a tab of its own, called as the section is, behind the tab where it stood. */
export function withSectionOnNewTab(form: Form, section: Section): Form {
  const at = form.tabs.findIndex(({ sections }) => sections.some(({ key }) => key === section.key));
  const tab: Tab = { key: keyFor(`${section.label} tab`, takenKeys(form)), label: section.label, sections: [section] };
  const others = form.tabs.map((one) => ({ ...one, sections: one.sections.filter(({ key }) => key !== section.key) }));
  return { ...form, tabs: [...others.slice(0, at + 1), tab, ...others.slice(at + 1)] };
}

/** Widths with that of one field; one column is not worth saying. */
export function withWidth(widths: Section['widths'], field: string, width: number): NonNullable<Section['widths']> {
  const others = Object.fromEntries(Object.entries(widths ?? {}).filter(([key]) => key !== field));
  return width > 1 ? { ...others, [field]: width } : others;
}

/** The form without a section; its fields are in the margin then. */
export const withoutSection = (form: Form, key: string): Form => ({
  ...form,
  tabs: form.tabs.map((tab) => ({ ...tab, sections: tab.sections.filter((section) => section.key !== key) })),
});

export const withoutTab = (form: Form, key: string): Form => ({ ...form, tabs: form.tabs.filter((tab) => tab.key !== key) });

/** The record type with the section, and what stands in it, on the last tab of another form as well: it is the same section there. */
export const withSectionCopied = (type: RecordType, section: Section, to: string): RecordType =>
  withForm(type, to, (form) => {
    const here = new Set(form.tabs.flatMap(({ sections }) => sections.flatMap(({ fields }) => fields)));
    const copy = { ...section, fields: section.fields.filter((field) => !here.has(field)) };
    const tabs = form.tabs.length > 0 ? form.tabs : [{ key: 'main', label: 'Main', sections: [] }];
    return { ...form, tabs: tabs.map((tab, i) => (i === tabs.length - 1 ? { ...tab, sections: [...tab.sections, copy] } : tab)) };
  });

/** The record type with another form, of one tab and one section. */
export function withNewForm(type: RecordType, label: string): { type: RecordType; key: string } {
  const key = keyFor(label, new Set(type.forms.map((form) => form.key)));
  const taken = new Set(type.forms.flatMap((form) => [...takenKeys(form)]));
  const form: Form = {
    key,
    label,
    tabs: [
      {
        key: keyFor(`${label} tab`, taken),
        label,
        sections: [{ key: keyFor(`${label} details`, taken), label: 'Details', fields: [] }],
      },
    ],
  };
  return { type: { ...type, forms: [...type.forms, form] }, key };
}
