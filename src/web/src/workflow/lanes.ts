import type { Move, Workflow } from '../api/generated';

/** A move as an arrow beside the line of stages. */
export interface Arrow {
  move: Move;
  /** Places of the stages. */
  from: number;
  to: number;
  /** How far from the line it runs, from 1. */
  lane: number;
  /** Which of the ends on that side of the stage it leaves and enters, from the left, and of how many. */
  leaves: [place: number, of: number];
  enters: [place: number, of: number];
}

/** The arrows of a workflow: those that lead on, above the line, and those that lead back, below it; no two over each other. */
export function arrowsOf({ stages, moves }: Workflow): { on: Arrow[]; back: Arrow[] } {
  const place = new Map(stages.map(({ key }, i) => [key, i]));
  const placed = moves.flatMap((move) => {
    const [from, to] = [place.get(move.from), place.get(move.to)];
    return from === undefined || to === undefined || from === to ? [] : [{ move, from, to }];
  });
  return { on: laid(placed.filter(({ from, to }) => from < to)), back: laid(placed.filter(({ from, to }) => from > to)) };
}

type Placed = Pick<Arrow, 'move' | 'from' | 'to'>;

function laid(side: Placed[]): Arrow[] {
  const left = ({ from, to }: Placed) => Math.min(from, to);
  const right = ({ from, to }: Placed) => Math.max(from, to);
  // The short ones run close to the line, within the long ones.
  const lanes: Placed[][] = [];
  const laneOf = new Map<Placed, number>();
  for (const one of side.toSorted((a, b) => right(a) - left(a) - (right(b) - left(b)) || left(a) - left(b))) {
    let lane = lanes.findIndex((others) => others.every((other) => right(other) <= left(one) || left(other) >= right(one)));
    if (lane < 0) {
      lane = lanes.push([]) - 1;
    }
    lanes[lane]!.push(one);
    laneOf.set(one, lane + 1);
  }
  // Ends at a stage: those towards the left stand left, the long ones outside.
  const ends = new Map<number, { one: Placed; isStart: boolean; towards: number }[]>();
  for (const one of side) {
    for (const [at, other, isStart] of [
      [one.from, one.to, true],
      [one.to, one.from, false],
    ] as const) {
      ends.set(at, [...(ends.get(at) ?? []), { one, isStart, towards: other - at }]);
    }
  }
  const order = (at: number) =>
    (ends.get(at) ?? []).toSorted((a, b) =>
      Math.sign(a.towards) !== Math.sign(b.towards)
        ? a.towards - b.towards
        : Math.abs(b.towards) - Math.abs(a.towards) > 0 === a.towards < 0
          ? -1
          : 1,
    );
  const endOf = (one: Placed, at: number, isStart: boolean): [number, number] => {
    const all = order(at);
    return [all.findIndex((end) => end.one === one && end.isStart === isStart), all.length];
  };
  return side.map((one) => ({
    ...one,
    lane: laneOf.get(one)!,
    leaves: endOf(one, one.from, true),
    enters: endOf(one, one.to, false),
  }));
}
