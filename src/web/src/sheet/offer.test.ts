import { describe, expect, it } from 'vitest';
import { only } from './offer';

const rooms = ['Red room', 'Reading room', 'Red room annex', 'Attic'].map((label) => ({ value: label.toLowerCase(), label }));

describe('what is typed where something is to be chosen', () => {
  it('is what is called so, in whatever case', () => {
    expect(only(rooms, 'red ROOM ')?.label).toBe('Red room');
  });

  it('is the only one with that in its label', () => {
    expect(only(rooms, 'att')?.label).toBe('Attic');
    expect(only(rooms, 'annex')?.label).toBe('Red room annex');
  });

  it('is nothing where it may be several, none, or was not typed', () => {
    expect(only(rooms, 're')).toBeUndefined();
    expect(only(rooms, 'cellar')).toBeUndefined();
    expect(only(rooms, '  ')).toBeUndefined();
  });

  it('is nothing where two are called alike', () => {
    expect(only([...rooms, { value: 'other', label: 'Attic' }], 'attic')).toBeUndefined();
  });
});
