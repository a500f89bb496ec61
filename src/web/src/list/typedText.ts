import type { Field, PersonEntry } from '../api/generated';
import type { Value } from '../engine/answers';
import { readDay, readMoment } from '../writing/dates';
import { readNumber } from '../writing/numbers';

/** The value that a field makes of text that was pasted or typed into a cell. What cannot be read goes as it is: the server says why not. */
export function valueOf({ type }: Field, text: string, people: PersonEntry[]): Value {
  const bare = text.trim();
  if (bare === '') {
    return null;
  }
  switch (type.kind) {
    case 'date':
      return readDay(bare) ?? bare;
    case 'dateTime':
      return readMoment(bare) ?? bare;
    case 'number':
      return readNumber(bare, type.unit ?? '') ?? bare;
    case 'money':
      return readNumber(bare, type.currency) ?? bare;
    case 'yesNo':
      return begins(bare, 'yes', 'true', '1') ? true : begins(bare, 'no', 'false', '0') ? false : bare;
    case 'choice':
      return keyOf(type.options, bare);
    case 'choices':
      return bare.split(/[;,]/).map((one) => keyOf(type.options, one.trim()));
    case 'link':
      return Number(/(?:^|No\. )(\d+)\)?$/.exec(bare)?.[1]) || bare;
    case 'person':
      return people.find(({ displayName }) => displayName.toLowerCase() === bare.toLowerCase())?.userName ?? bare;
    case 'fullName': {
      const [given = '', ...family] = bare.split(/\s+/);
      return family.length > 0 ? { given, family: family.join(' ') } : { family: given };
    }
    case 'address': {
      const [street = '', city = '', country = ''] = bare.split(',').map((part) => part.trim());
      return Object.fromEntries(Object.entries({ street, city, country }).filter(([, part]) => part));
    }
    default:
      return text;
  }
}

/** Whether it is the beginning of one of the words: of what is typed into a cell, the rest may still come. */
const begins = (text: string, ...words: string[]) => words.some((word) => word.startsWith(text.toLowerCase()));

const keyOf = (options: { key: string; label: string }[], text: string) =>
  options.find(({ key, label }) => key === text || label.toLowerCase() === text.toLowerCase())?.key ?? text;
