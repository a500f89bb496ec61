/** Numbers and amounts of money as the person writes them: as Notation in Dibujo.Core, against which `written.json` holds this. */
import { ownNotation } from './notation';

function written(value: number, leastDigits: number, isGrouped: boolean): string {
  const [, group = ',', , point = '.'] = /^1(.)(234)(.)5$/.exec(ownNotation().numbers) ?? [];
  const [whole = '', fraction = ''] = plain(Math.abs(value)).split('.');
  const grouped = isGrouped ? whole.replace(/\B(?=(\d{3})+$)/g, group) : whole;
  const digits = fraction.padEnd(leastDigits, '0');
  return `${value < 0 ? '-' : ''}${grouped}${digits && point + digits}`;
}

/** All its digits, without an exponent. */
const plain = (value: number) => (/e/.test(String(value)) ? value.toFixed(20).replace(/\.?0+$/, '') : String(value));

export const writtenNumber = (value: number, isGrouped = true) => written(value, 0, isGrouped);

/** An amount without its currency, which stands beside it: always with its cents, so that amounts one below another are alike. */
export const writtenAmount = (value: number) => written(value, 2, true);
