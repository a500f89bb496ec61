import type { Field, RecordType } from '../../api/generated';

/** A rule that could be said of the form at hand, to show how: of fields that stand on it; nothing where there are too few. */
export function exampleOf(type: RecordType, formKey: string, tabKey: string): string {
  const form = type.forms.find(({ key }) => key === formKey) ?? type.forms[0];
  const tab = form?.tabs.find(({ key }) => key === tabKey);
  const fields = [...(tab ? [tab] : []), ...(form?.tabs ?? [])]
    .flatMap(({ sections }) => sections.flatMap((section) => section.fields))
    .flatMap((key) => type.fields.filter((field) => field.key === key && !field.retired));
  const driver = fields.find((field) => answerOf(field) !== undefined) ?? fields[0];
  const after = driver ? fields.slice(fields.indexOf(driver) + 1).find(({ key }) => key !== driver.key) : undefined;
  const target = after ?? fields.find(({ key }) => key !== driver?.key);
  const answer = driver && answerOf(driver);
  return driver && target ? `require ${target.label} if ${driver.label} is ${answer ?? 'filled in'}` : '';
}

function answerOf({ type }: Field): string | undefined {
  return type.kind === 'yesNo' ? 'yes' : type.kind === 'choice' ? type.options.find(({ retired }) => !retired)?.label : undefined;
}
