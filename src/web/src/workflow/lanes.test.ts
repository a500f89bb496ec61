import { describe, expect, it } from 'vitest';
import type { Workflow } from '../api/generated';
import { random } from '../pending/random';
import { arrowsOf, type Arrow } from './lanes';

const stages = ['Enquiry', 'Assessment', 'Terms', 'Approval', 'Transit', 'Display', 'Returned'].map((label) => ({
  key: label,
  label,
}));
const workflow = (...moves: [number, number][]): Workflow => ({
  key: 'short',
  label: 'Short',
  stages,
  moves: moves.map(([from, to], i) => ({ key: `m${i}`, label: `m${i}`, from: stages[from]!.key, to: stages[to]!.key })),
});

const overlap = (one: Arrow, other: Arrow) =>
  Math.max(Math.min(one.from, one.to), Math.min(other.from, other.to)) <
  Math.min(Math.max(one.from, one.to), Math.max(other.from, other.to));

describe('the arrows of a workflow', () => {
  it('lead on above and back below, and no two run over each other', () => {
    for (let seed = 1; seed <= 300; seed++) {
      const chance = random(seed);
      const stage = () => Math.floor(chance() * stages.length);
      const drawn = workflow(
        ...Array.from({ length: 1 + Math.floor(chance() * 14) }, (): [number, number] => [stage(), stage()]),
      );
      const { on, back } = arrowsOf(drawn);

      expect(on.every(({ from, to }) => from < to) && back.every(({ from, to }) => from > to)).toBe(true);
      expect(on.length + back.length).toBe(drawn.moves.filter(({ from, to }) => from !== to).length);
      for (const side of [on, back]) {
        side.forEach((one, i) =>
          side.slice(i + 1).forEach((other) => expect(one.lane !== other.lane || !overlap(one, other), `${seed}`).toBe(true)),
        );
        // Each end at a stage has a place of its own there.
        const ends = side.flatMap(({ from, to, leaves, enters }) => [
          [from, ...leaves],
          [to, ...enters],
        ]);
        expect(new Set(ends.map((end) => end.join(' '))).size, `${seed}`).toBe(ends.length);
        ends.forEach(([at, place, of]) => {
          expect(ends.filter(([other]) => other === at)).toHaveLength(of!);
          expect(place).toBeLessThan(of!);
        });
      }
    }
  });

  it('run close to the line where they are short', () => {
    const { on } = arrowsOf(workflow([0, 6], [1, 2], [2, 4]));
    expect(on.map(({ lane }) => lane)).toEqual([2, 1, 1]);
  });

  it('leave out moves to stages that are not there', () => {
    const drawn = workflow([0, 1]);
    expect(
      arrowsOf({ ...drawn, moves: [...drawn.moves, { key: 'x', label: 'x', from: 'Enquiry', to: 'Gone' }] }).on,
    ).toHaveLength(1);
  });
});
