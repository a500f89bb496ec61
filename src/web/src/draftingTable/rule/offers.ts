import type { Element, ElementKind, RecordType, Subject, SubjectOffer } from '../../api/generated';
import type { OpenRecord } from '../../engine/openRecord';
import { shown } from '../../writing/shown';
import { tabOf } from '../../sheet/Sheet';
import type { ChipOption } from './Chip';
import { sameElement, sameSubject } from './compose';
import type { Writing } from './writing';

const kinds: Record<SubjectOffer['input'], string> = {
  text: 'text',
  number: 'number',
  date: 'date',
  dateTime: 'date and time',
  yesNo: 'yes or no',
  list: 'choice',
  record: 'link',
  person: 'person',
};

const groups: Record<ElementKind, string> = {
  field: 'Fields',
  part: 'Parts of fields',
  section: 'Sections',
  tab: 'Tabs',
  form: 'Forms',
  record: 'The record',
};

const likeliest = 'Most likely';

/** What a subject is called, can be asked and is compared with. The saved value of a field is asked what the field is, but for changes. */
export function offerOf({ vocabulary }: Pick<Writing, 'vocabulary'>, subject: Subject): SubjectOffer | undefined {
  if (subject.kind === 'field' && subject.saved) {
    const offer = vocabulary.subjects.find((one) => sameSubject(one.subject, { ...subject, saved: false }));
    return (
      offer && {
        ...offer,
        subject,
        label: `the saved value of ${offer.label}`,
        tests: offer.tests.filter(({ test }) => test !== 'changed' && test !== 'unchanged'),
      }
    );
  }
  return vocabulary.subjects.find((one) => sameSubject(one.subject, subject));
}

/** Everything that a clause can look at, the likeliest first. */
export function subjectOptions(writing: Writing): ChipOption[] {
  const { vocabulary, likely } = writing;
  const offered = vocabulary.subjects.filter(({ retired }) => !retired);
  const all = offered.map((offer): ChipOption & { isLikely: boolean } => {
    const { subject } = offer;
    const isLikely = subject.kind === 'field' && !subject.part && likely({ kind: 'field', key: subject.field });
    return {
      value: JSON.stringify(subject),
      label: offer.label,
      note: noteOf(writing, offer),
      group: isLikely
        ? likeliest
        : subject.kind === 'field'
          ? 'Fields'
          : subject.kind === 'linked'
            ? 'Linked records'
            : 'The record and the person',
      isLikely,
    };
  });
  const saved = offered
    .filter(({ subject }) => subject.kind === 'field' && !subject.part)
    .map((offer) => ({
      value: JSON.stringify({ ...offer.subject, saved: true }),
      label: `the saved value of ${offer.label}`,
      group: 'As last saved',
    }));
  const setting = all.filter(({ group }) => group === 'The record and the person');
  const others = all.filter(({ isLikely, group }) => !isLikely && group !== 'The record and the person');
  return [...all.filter(({ isLikely }) => isLikely), ...setting, ...others, ...saved];
}

/** What is retired is offered nowhere new; a rule that speaks of it goes on doing so. */
const isRetired = (type: RecordType, field: string, kind: Element['kind'] = 'field'): boolean =>
  (kind === 'field' || kind === 'part') && type.fields.some(({ key, retired }) => key === field && retired);

function noteOf({ type, record }: Writing, { subject, input, unit }: SubjectOffer): string {
  const kind = unit ? `${kinds[input]} in ${unit}` : kinds[input];
  if (subject.kind !== 'field') {
    return kind;
  }
  const field = type.fields.find(({ key }) => key === subject.field);
  const present = subject.part ? '' : shown(field?.type, record.value(subject.field));
  return [kind, tabLabel(type, { kind: 'field', key: subject.field }), present && `now ${present}`].filter(Boolean).join(' · ');
}

/** Everything that an effect can act on, the likeliest first. */
export function targetOptions({ type, vocabulary, record, likely }: Writing, only?: (element: Element) => boolean): ChipOption[] {
  const all = vocabulary.targets
    .filter(({ element }) => (!only || only(element)) && !isRetired(type, element.key.split('.')[0]!, element.kind))
    .map(({ element, label }) => ({
      value: JSON.stringify(element),
      label,
      note: element.kind === 'field' ? fieldNote(type, record, element.key) : (tabLabel(type, element) ?? ''),
      group: likely(element) ? likeliest : (groups[element.kind] as string),
    }));
  return [...all.filter(({ group }) => group === likeliest), ...all.filter(({ group }) => group !== likeliest)];
}

function fieldNote(type: RecordType, record: OpenRecord, key: string): string {
  const present = shown(type.fields.find((field) => field.key === key)?.type, record.value(key));
  return [tabLabel(type, { kind: 'field', key }), present && `now ${present}`].filter(Boolean).join(' · ');
}

function tabLabel(type: RecordType, element: Element): string | undefined {
  for (const form of type.forms) {
    const tab = tabOf({ recordType: type }, element.kind, element.key, form.key);
    const found = form.tabs.find(({ key }) => key === tab);
    if (found) {
      return form === type.forms[0] ? found.label : form.label;
    }
  }
  return undefined;
}

export const labelOf = ({ vocabulary }: Pick<Writing, 'vocabulary'>, element: Element): string =>
  vocabulary.targets.find((target) => sameElement(target.element, element))?.label ?? element.key;

export const fieldLabelOf = (writing: Pick<Writing, 'vocabulary'>, field: string): string =>
  field === '' ? '' : labelOf(writing, { kind: 'field', key: field });
