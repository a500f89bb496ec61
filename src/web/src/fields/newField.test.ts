import { describe, expect, it } from 'vitest';
import { newFieldFrom } from './newField';

const kindOf = (line: string) => newFieldFrom(line, 'text').type.kind;

describe('a field said in a line', () => {
  it.each([
    ['Price: money', 'Price', { kind: 'money', currency: 'EUR' }],
    ['Price: money in chf', 'Price', { kind: 'money', currency: 'CHF' }],
    ['Width : Number in cm', 'Width', { kind: 'number', unit: 'cm' }],
    ['Needed by: date', 'Needed by', { kind: 'date' }],
    ['Urgent: yes/no', 'Urgent', { kind: 'yesNo' }],
    ['Maker: full name', 'Maker', { kind: 'fullName' }],
  ])('is called and typed as “%s” says', (line, label, type) => {
    expect(newFieldFrom(line, 'text')).toEqual({ label, type });
  });

  it('has the choices that are listed', () => {
    const frame = newFieldFrom('Frame: Oak, Lime or Gilt', 'text');

    expect(frame.type).toEqual({
      kind: 'choice',
      options: [
        { key: 'oak', label: 'Oak' },
        { key: 'lime', label: 'Lime' },
        { key: 'gilt', label: 'Gilt' },
      ],
    });
    expect(kindOf('Care: several of dry, dark, cool')).toBe('choices');
  });

  it('is of the type beside it where nothing else is said', () => {
    expect(newFieldFrom('  Depth ', 'number')).toEqual({ label: 'Depth', type: { kind: 'number' } });
    expect(newFieldFrom('Depth:', 'number').label).toBe('Depth');
  });

  it('keeps a colon that leads to no type in its label', () => {
    expect(newFieldFrom('Outcome: second look', 'text').label).toBe('Outcome: second look');
    expect(kindOf('Weight: number of pieces')).toBe('text');
    expect(kindOf('Arrival: date in spring')).toBe('text');
  });
});
