import type { DecisionTable } from '../../api/generated';
import { offerOf } from '../rule/offers';
import type { Writing } from '../rule/writing';
import { allStates, stateWords } from './stateWords';

/** What a cell of a column may say, as far as that is a list; and what else can be typed there. */
export function cellChoices(
  writing: Pick<Writing, 'vocabulary' | 'type'>,
  { drivers, outputs }: DecisionTable,
  column: number,
): { choices: string[]; hint: string } {
  const output = outputs[column - drivers.length];
  if (output?.kind === 'state') {
    return { choices: allStates.map((state) => stateWords[state]), hint: 'Give one of these, or several with commas.' };
  }
  if (output?.kind === 'choices') {
    const type = writing.type.fields.find(({ key }) => key === output.field)?.type;
    const options = type && 'options' in type ? type.options.filter(({ retired }) => !retired) : [];
    return { choices: options.map(({ label }) => label), hint: 'Give one of these, or several with commas.' };
  }
  const subject = drivers[column] ?? (output?.kind === 'value' ? ({ kind: 'field', field: output.field } as const) : undefined);
  const offer = subject && offerOf(writing, subject);
  switch (offer?.input) {
    case 'list':
      return {
        choices: offer.values.filter(({ retired }) => !retired).map(({ label }) => label),
        hint: 'Give one of these, or several with “or”.',
      };
    case 'yesNo':
      return { choices: ['yes', 'no'], hint: 'Give yes or no.' };
    case 'number':
      return { choices: [], hint: 'Give a number such as 50, or a test such as “at least 50” or “between 10 and 20”.' };
    case 'date':
    case 'dateTime':
      return { choices: [], hint: 'Give a day such as 3 Mar 2027, or a test such as “before today”.' };
    default:
      return { choices: [], hint: 'Give a value or a test that fits the column.' };
  }
}

/** Splits what is typed before its last item, which is being typed. */
export function lastItem(typed: string): { before: string; item: string } {
  const [, before = '', item = typed] = /^(.*(?:,|\bor\b)\s*)?(.*)$/is.exec(typed) ?? [];
  return { before, item };
}

/** The choices that the item being typed may become: those that begin so first. */
export function completionsOf(choices: string[], typed: string): string[] {
  const item = lastItem(typed).item.trim().toLowerCase();
  const begins = (choice: string) => (choice.toLowerCase().startsWith(item) ? 0 : 1);
  return choices.filter((choice) => choice.toLowerCase().includes(item)).toSorted((one, other) => begins(one) - begins(other));
}
