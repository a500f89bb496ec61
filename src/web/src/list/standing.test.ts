import { describe, expect, it } from 'vitest';
import type { ListRow } from '../api/generated';
import { standing } from './standing';

const row = (id: number, version = 1) => ({ id, version }) as ListRow;
const said = (rows: ListRow[]) => rows.map(({ id, version }) => `${id}.${version}`).join(' ');

describe('rows that somebody types into', () => {
  it('stay where they are when a save brings one to the top', () => {
    expect(said(standing([row(1), row(2), row(3)], [row(3, 2), row(1), row(2)]))).toBe('1.1 2.1 3.2');
  });

  it('stay when they are no longer in the list, and wait with what came between', () => {
    expect(said(standing([row(1), row(2)], [row(9), row(2)]))).toBe('1.1 2.1');
  });

  it('are followed by what is scrolled to', () => {
    expect(said(standing([row(1), row(2)], [row(2, 2), row(1), row(3), row(4)]))).toBe('1.1 2.2 3.1 4.1');
  });
});
