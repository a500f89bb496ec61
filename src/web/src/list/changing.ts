import { answered, type Problem } from '../api/client';
import { changeRows, type ListRow, type RecordType, type Refusal, type RowOutcome } from '../api/generated';
import type { Values } from '../engine/answers';
import { attempt } from '../pending/retry';
import { newTicket } from '../pending/ticket';

/** What is to become of a row. */
export interface Change {
  row: ListRow;
  changes: Values;
  /** Key of a move to be made. */
  move?: string;
}

/** A change as it goes to the server: through one form, with what came of it. */
export interface Step extends Change {
  outcome: RowOutcome;
  /** What was left as it is so that the rest could be saved, with the reasons. */
  left?: Refusal[];
}

/** A change on its way: through one form, and known to the server by its ticket, so that sent twice it is done once. */
interface Due extends Change {
  form: string | null;
  ticket?: string;
}

/** What came of changing several rows. */
export interface Changed {
  steps: Step[];
  /** What the server was not reached for, or did not answer to, one turn after the other; empty where all were gone through. */
  rest: Due[][];
  /** Why there is a rest. */
  problem?: Problem;
}

/** How many rows go to the server at once. */
const portion = 100;

/** The form through which a list sees a field and changes it: the first on which it stands, else the main one. */
export const formOf = (type: RecordType, field: string) =>
  (
    type.forms.find(({ tabs }) => tabs.some(({ sections }) => sections.some(({ fields }) => fields.includes(field)))) ??
    type.forms[0]
  )?.key ?? null;

/**
 * Changes rows, each under its own rules. What stands on another form of a record goes after the rest of its row, as a save of its
 * own. Where the server is lost on the way, what was done until then is told, and what was not.
 */
export function changeInTurns(type: RecordType, columns: string[], changes: Change[]): Promise<Changed> {
  const turns: Due[][] = [];
  for (const { row, move, ...change } of changes) {
    byForm(type, { row, ...change }).forEach((through, turn) =>
      (turns[turn] ??= []).push({ row, ...through, move: turn === 0 ? move : undefined, ticket: newTicket() }),
    );
  }
  return goOn(type, columns, { steps: [], rest: turns });
}

/** What would come of changes, each as it is sent by itself; nothing is stored. */
export async function tryChanges(type: RecordType, columns: string[], changes: Change[]): Promise<Step[]> {
  const due = changes.flatMap((change) => byForm(type, change).map((through) => ({ row: change.row, ...through })));
  const steps: Step[] = [];
  for (let i = 0; i < due.length; i += portion) {
    const some = due.slice(i, i + portion);
    const rows = some.map(({ row, changes, form }) => ({ id: row.id, version: row.version, changes, form, move: null }));
    const outcomes = await attempt(() =>
      answered(changeRows({ path: { key: type.key }, body: { columns, rows, isTrial: true } })),
    );
    outcomes.forEach((outcome, j) => steps.push({ ...some[j]!, outcome }));
  }
  return steps;
}

/** Does what is left of it. */
export async function goOn(type: RecordType, columns: string[], { steps: before, rest }: Changed): Promise<Changed> {
  const steps = [...before];
  const versions = new Map(steps.flatMap(({ outcome }) => (outcome.row ? [[outcome.id, outcome.row.version]] : [])));
  for (const [turn, due] of rest.entries()) {
    for (let i = 0; i < due.length; i += portion) {
      const some = due.slice(i, i + portion);
      const rows = some.map(({ row, changes, form, move, ticket }) => ({
        id: row.id,
        version: versions.get(row.id) ?? row.version,
        changes,
        form,
        move: move ?? null,
        ticket,
      }));
      try {
        const outcomes = await attempt(() => answered(changeRows({ path: { key: type.key }, body: { columns, rows } })));
        outcomes.forEach((outcome, j) => {
          steps.push({ ...some[j]!, outcome });
          if (outcome.row) {
            versions.set(outcome.id, outcome.row.version);
          }
        });
      } catch (failure) {
        return { steps, rest: [due.slice(i), ...rest.slice(turn + 1)], problem: failure as Problem };
      }
    }
  }
  return { steps, rest: [] };
}

/**
 * Puts rows back to what they were, each as far as its rules allow it now: what they refuse, such as a field that is hidden once the
 * others are back, is left as it is and told.
 */
export async function changeBack(type: RecordType, columns: string[], changes: Change[]): Promise<Changed> {
  const first = await changeInTurns(type, columns, changes);
  const { steps } = first;
  // Another part of the record may have been saved since.
  const latest = ({ row }: Step) => steps.findLast(({ outcome }) => outcome.id === row.id && outcome.row)?.outcome.row ?? row;
  const partly = steps.flatMap((step) => {
    const left = step.outcome.refusals.filter(({ field }) => field && field in step.changes);
    const rest = Object.entries(step.changes).filter(([field]) => !left.some((one) => one.field === field));
    return step.outcome.row || left.length === 0 || rest.length === 0
      ? []
      : [{ first: step, left, again: { row: latest(step), changes: Object.fromEntries(rest), move: step.move } }];
  });
  const second = await changeInTurns(
    type,
    columns,
    partly.map(({ again }) => again),
  );
  const leftOf = ({ row }: Change) => partly.find(({ again }) => again.row.id === row.id);
  return {
    steps: [
      ...steps.filter((step) => !partly.some((one) => one.first === step)),
      ...second.steps.map((step) => ({ ...step, left: leftOf(step)?.left })),
    ],
    rest: [...first.rest, ...second.rest],
    problem: first.problem ?? second.problem,
  };
}

/** The changes that have what was done undone: each record as far as a move leads back where it was moved. */
export function undoing(type: RecordType, steps: Step[]): Change[] {
  return replacedBy(steps).flatMap(({ row, before, changes }): Change[] => {
    const back = type.workflows
      .find(({ key }) => key === row.workflow)
      ?.moves.find(({ from, to }) => from === row.stage && to === before.stage);
    return row.stage === before.stage ? [{ row, changes }] : back ? [{ row, changes, move: back.key }] : [];
  });
}

/** What the steps replaced, record by record: to be sent to have them undone. */
function replacedBy(steps: Step[]): { row: ListRow; before: ListRow; changes: Values }[] {
  const records = [...new Set(steps.filter(({ outcome }) => outcome.row).map(({ outcome }) => outcome.id))];
  return records.flatMap((id) => {
    const own = steps.filter(({ outcome }) => outcome.row && outcome.id === id);
    const [before, row] = [own[0]?.row, own.at(-1)?.outcome.row];
    // Of several saves of one record the first knows what stood there.
    const changes = Object.assign({}, ...own.map(({ outcome }) => outcome.replaced).reverse()) as Values;
    return before && row ? [{ row, before, changes }] : [];
  });
}

function byForm(type: RecordType, { changes }: Pick<Change, 'row' | 'changes'>): { form: string | null; changes: Values }[] {
  const forms = new Map<string | null, Values>();
  for (const [field, value] of Object.entries(changes)) {
    const form = formOf(type, field);
    forms.set(form, { ...forms.get(form), [field]: value });
  }
  return forms.size === 0 ? [{ form: null, changes: {} }] : [...forms].map(([form, some]) => ({ form, changes: some }));
}
