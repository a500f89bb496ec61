import { describe, expect, it } from 'vitest';
import { completionsOf, lastItem } from './cellChoices';

const materials = ['Oil on canvas', 'Work on paper', 'Paper', 'Textile'];

describe('the choices of a cell', () => {
  it.each([
    ['', '', ''],
    ['pap', '', 'pap'],
    ['Textile or pap', 'Textile or ', 'pap'],
    ['Textile, Paper or ', 'Textile, Paper or ', ''],
    ['Orchid', '', 'Orchid'],
  ])('go on with the last item of “%s”', (typed, before, item) => {
    expect(lastItem(typed)).toEqual({ before, item });
  });

  it('offers first what begins so, and then what has it somewhere', () => {
    expect(completionsOf(materials, 'Textile or pap')).toEqual(['Paper', 'Work on paper']);
    expect(completionsOf(materials, '')).toEqual(materials);
    expect(completionsOf(materials, 'wax')).toEqual([]);
  });
});
