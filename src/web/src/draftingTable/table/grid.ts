import type { Answer, Comparand, DecisionTable, Element, Row, State, Subject, SubjectOffer } from '../../api/generated';

/** A table with one driver that is seen as a grid: its choices across, elements down, states in the crossings. */
export interface Grid {
  driver: Subject;
  /** The choices, and after them "otherwise", which has no value. */
  choices: { value: string | boolean | null; label: string }[];
  elements: Element[];
  /** By element, then by choice. */
  states: State[][][];
}

export const otherwise = 'otherwise';

/** The choices of a driver that can stand across a grid; none where it has no list of them. */
export function choicesOf({ input, values }: SubjectOffer): Grid['choices'] {
  return input === 'yesNo'
    ? [
        { value: true, label: 'yes' },
        { value: false, label: 'no' },
      ]
    : input === 'list'
      ? values.filter(({ retired }) => !retired).map(({ key, label }) => ({ value: key, label }))
      : [];
}

/** The table as a grid; undefined where it says more than a grid can show. */
export function gridOf(table: DecisionTable, offer: SubjectOffer | undefined): Grid | undefined {
  const { drivers, outputs, rows } = table;
  if (drivers.length !== 1 || !offer || table.hit === 'any' || outputs.some((output) => output.kind !== 'state')) {
    return undefined;
  }
  const choices = [...choicesOf(offer), { value: null, label: otherwise }];
  if (choices.length === 1) {
    return undefined;
  }
  const byChoice = new Map<string | boolean | null, Row>();
  for (const row of rows) {
    const values = valuesOf(row);
    if (!values) {
      return undefined;
    }
    values.filter((value) => !byChoice.has(value)).forEach((value) => byChoice.set(value, row));
  }
  const elements: Element[] = [];
  const states: State[][][] = [];
  outputs.forEach((output, o) => {
    for (const element of output.kind === 'state' ? output.targets : []) {
      elements.push(element);
      states.push(choices.map(({ value }) => statesOf((byChoice.get(value) ?? byChoice.get(null))?.then[o])));
    }
  });
  return { driver: drivers[0]!, choices, elements, states };
}

/** The values that a row's one cell takes; null for anything; undefined where it asks for something else. */
function valuesOf({ if: [cell] }: Row): (string | boolean | null)[] | undefined {
  if (!cell?.test) {
    return [null];
  }
  const values = (cell.comparands ?? []).map(literal);
  return ['is', 'oneOf', 'includesAny'].includes(cell.test) && values.every((value) => value !== undefined)
    ? (values as (string | boolean)[])
    : undefined;
}

const literal = (comparand: Comparand) =>
  comparand.kind === 'literal' && (typeof comparand.value === 'string' || typeof comparand.value === 'boolean')
    ? comparand.value
    : undefined;

const statesOf = (answer: Answer | undefined): State[] => (answer?.kind === 'states' ? answer.states : []);

/** The grid as a table: a row for all choices with the same states, and one for everything else. */
export function tableOf({ driver, choices, elements, states }: Grid): DecisionTable {
  const rows: Row[] = [];
  const rest = choices.length - 1;
  const column = (c: number): Answer[] =>
    elements.map((_, e) => (states[e]![c]!.length > 0 ? { kind: 'states', states: states[e]![c]! } : { kind: 'none' }));
  choices.forEach(({ value }, c) => {
    const then = column(c);
    const same = rows.find((row) => JSON.stringify(row.then) === JSON.stringify(then));
    const comparand: Comparand = { kind: 'literal', value };
    if (c === rest) {
      rows.push({ if: [{ test: null, comparands: [] }], then });
    } else if (same) {
      const taken = [...(same.if[0]!.comparands ?? []), comparand];
      same.if[0] = { test: 'oneOf', comparands: taken };
    } else if (JSON.stringify(then) !== JSON.stringify(column(rest))) {
      rows.push({ if: [{ test: 'is', comparands: [comparand] }], then });
    }
  });
  return {
    hit: 'first',
    drivers: [driver],
    outputs: elements.map((element) => ({ kind: 'state', targets: [element] })),
    rows: yesNoAsIs(rows),
  };
}

/** Both answers of a yes/no question are no list: there is a row for each. */
const yesNoAsIs = (rows: Row[]): Row[] =>
  rows.flatMap((row) =>
    (row.if[0]!.comparands ?? []).some((one) => one.kind === 'literal' && typeof one.value === 'boolean')
      ? row.if[0]!.comparands!.map((comparand): Row => ({ ...row, if: [{ test: 'is', comparands: [comparand] }] }))
      : [row],
  );

/** Puts an element below the others: nothing is said of it until it is painted. */
export function withElement(grid: Grid, element: Element): Grid {
  return {
    ...grid,
    elements: [...grid.elements, element],
    states: [...grid.states, grid.choices.map((): State[] => [])],
  };
}

export function withoutElement(grid: Grid, at: number): Grid {
  return { ...grid, elements: grid.elements.filter((_, e) => e !== at), states: grid.states.filter((_, e) => e !== at) };
}

const facets: Record<State, string> = {
  shown: 'visibility',
  hidden: 'visibility',
  hiddenAndCleared: 'visibility',
  hiddenAndReset: 'visibility',
  requiredToMoveOn: 'requirement',
  requiredToSave: 'requirement',
  optional: 'requirement',
  locked: 'access',
  open: 'access',
};

/** Paints a crossing: takes the place of what was said there of the same facet. A field that is required there is shown there. */
export function painted(grid: Grid, e: number, c: number, state: State | null): Grid {
  const before = grid.states[e]![c]!;
  const kept = before.filter(
    (one) => state !== null && facets[one] !== facets[state] && !(facets[state] === 'requirement' && one.startsWith('hidden')),
  );
  const next =
    state === null
      ? []
      : [
          ...kept,
          ...(facets[state] === 'requirement' && before.some((one) => one.startsWith('hidden')) ? (['shown'] as State[]) : []),
          state,
        ];
  return { ...grid, states: grid.states.map((row, i) => (i === e ? row.map((one, j) => (j === c ? next : one)) : row)) };
}

/** Paints every crossing of which nothing is said. */
export const filled = (grid: Grid, state: State): Grid => ({
  ...grid,
  states: grid.states.map((row) => row.map((one) => (one.length === 0 ? [state] : one))),
});

/** What pressing a crossing paints: showing and hiding take turns. */
export function nextState(states: State[], brush: State | null): State | null {
  return brush !== null && states.includes(brush) ? (brush === 'shown' ? 'hidden' : brush === 'hidden' ? 'shown' : null) : brush;
}
