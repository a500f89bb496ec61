/** Numbers and amounts of money as the person's locale writes them. */

const parts = new Intl.NumberFormat(undefined).formatToParts(12345.6);
const point = parts.find(({ type }) => type === 'decimal')?.value ?? '.';
const grouping = parts.find(({ type }) => type === 'group')?.value ?? ',';

const plainNumber = new Intl.NumberFormat(undefined, { maximumFractionDigits: 20 });
const cents = new Intl.NumberFormat(undefined, { minimumFractionDigits: 2, maximumFractionDigits: 20 });

export const writtenNumber = (value: number) => plainNumber.format(value);

/** An amount without its currency, which stands beside it: whole, or with its cents. */
export const writtenAmount = (value: number) => (Number.isInteger(value) ? plainNumber : cents).format(value);

/** The number that somebody typed, with or without marks between thousands and what it counts behind it; null for anything else. */
export function readNumber(typed: string, unit = ''): number | null {
  const bare = typed
    .replace(/[\s'’\u00a0\u202f]/g, '')
    .replace(/−/g, '-')
    .replace(new RegExp(`^${escaped(unit)}|${escaped(unit)}$`, 'i'), '');
  const marks = bare.replace(/[^.,]/g, '');
  let text = bare;
  if (new Set(marks).size === 2) {
    // The one that comes last goes before the fraction.
    const last = marks.at(-1) ?? '';
    text = [...bare].filter((c) => c === last || (c !== '.' && c !== ',')).join('');
    text = text.replace(last, '.');
  } else if ((marks.length > 1 || (marks === grouping && point !== grouping)) && /^-?\d{1,3}([.,]\d{3})+$/.test(bare)) {
    text = bare.replace(/[.,]/g, '');
  } else {
    // What goes between thousands goes before a fraction only where it cannot be meant otherwise.
    text = marks === grouping && !/[.,]\d{1,2}$/.test(bare) ? '' : bare.replace(',', '.');
  }
  return /^-?\d+(\.\d+)?$/.test(text) || /^-?\.\d+$/.test(text) ? Number(text) : null;
}

const escaped = (text: string) => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&').replace(/\s/g, '');
