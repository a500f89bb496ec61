import type { Definition, Move, RecordType, Stage, Workflow } from '../api/generated';
import { keyFor } from '../fields/keyFor';

/** The record type with another workflow in the place of the one of that key. */
export const withWorkflow = (type: RecordType, key: string, change: Partial<Workflow>): RecordType => ({
  ...type,
  workflows: type.workflows.map((workflow) => (workflow.key === key ? { ...workflow, ...change } : workflow)),
});

/** What a move is called by itself: by where it leads. */
const moveTo = (stage: string): string => `To ${stage.toLowerCase()}`;

/** The record type where that stage is called otherwise: a key means the same stage in all workflows. Moves that are called after it follow. */
export const withStageLabel = (type: RecordType, key: string, label: string): RecordType => ({
  ...type,
  workflows: type.workflows.map((workflow) => {
    const before = workflow.stages.find((stage) => stage.key === key);
    return {
      ...workflow,
      stages: workflow.stages.map((stage) => (stage.key === key ? { ...stage, label } : stage)),
      moves: workflow.moves.map((move) =>
        before && move.to === key && move.label === moveTo(before.label) ? { ...move, label: moveTo(label) } : move,
      ),
    };
  }),
});

/** The workflow with a new stage after the one at that place. Moves from that one to the next lead to it, and one like each leads on. */
export function withNewStage(type: RecordType, workflow: Workflow, at: number, label: string): Partial<Workflow> {
  const taken = new Set(type.workflows.flatMap(({ stages }) => stages.map(({ key }) => key)));
  const stage: Stage = { key: keyFor(label, taken), label };
  const [before, after] = [workflow.stages[at], workflow.stages[at + 1]];
  const keys = new Set(type.workflows.flatMap(({ moves }) => moves.map(({ key }) => key)));
  const moves = workflow.moves.flatMap((move): Move[] => {
    if (move.from !== before?.key || move.to !== after?.key) {
      return [move];
    }
    const label = moveTo(after.label);
    const key = keyFor(label, keys);
    keys.add(key);
    return [
      { ...move, to: stage.key },
      { ...move, key, label, from: stage.key },
    ];
  });
  return { stages: [...workflow.stages.slice(0, at + 1), stage, ...workflow.stages.slice(at + 1)], moves };
}

/** The record type in which new records begin in that workflow: the first one. */
export const withWorkflowFirst = (type: RecordType, key: string): RecordType => ({
  ...type,
  workflows: type.workflows.toSorted((one, other) => Number(other.key === key) - Number(one.key === key)),
});

/** The workflow without a stage. A move that led to it leads on to where its first move led; what became of which is told in words. */
export function withoutStage({ stages, moves }: Workflow, key: string): { part: Partial<Workflow>; told: string[] } {
  const called = (stage: string) => stages.find((one) => one.key === stage)?.label ?? stage;
  const left = stages.filter((stage) => stage.key !== key);
  const told: string[] = [];
  const mended = moves.flatMap((move): Move[] => {
    if (move.from === key) {
      told.push(`“${move.label}” is deleted with it.`);
      return [];
    }
    if (move.to !== key) {
      return [move];
    }
    const on = moves.find((next) => next.from === key && next.to !== key && next.to !== move.from)?.to;
    if (on === undefined || moves.some((other) => other.from === move.from && other.to === on)) {
      told.push(`“${move.label}” is deleted with it.`);
      return [];
    }
    const label = move.label === moveTo(called(key)) ? moveTo(called(on)) : move.label;
    told.push(`“${label}” leads from ${called(move.from)} to ${called(on)} now.`);
    return [{ ...move, to: on, label }];
  });
  return { part: { stages: left, moves: mended }, told };
}

/** The workflow with the stage that many places further on. */
export function withStageMoved({ stages }: Workflow, at: number, by: number): Partial<Workflow> {
  const others = stages.filter((_, i) => i !== at);
  const to = Math.max(0, Math.min(others.length, at + by));
  return { stages: [...others.slice(0, to), stages[at]!, ...others.slice(to)] };
}

/** The workflow with a move from the one stage to the other. */
export function withNewMove(type: RecordType, workflow: Workflow, from: string, to: string): Partial<Workflow> {
  const taken = new Set(type.workflows.flatMap(({ moves }) => moves.map(({ key }) => key)));
  const label = moveTo(workflow.stages.find(({ key }) => key === to)?.label ?? '');
  return { moves: [...workflow.moves, { key: keyFor(label, taken), label, from, to }] };
}

export const withMove = ({ moves }: Workflow, key: string, change: Partial<Move>): Partial<Workflow> => ({
  moves: moves.map((move) => (move.key === key ? { ...move, ...change } : move)),
});

/** The record type with another workflow of two stages. */
export function withNewWorkflow(type: RecordType, label: string): RecordType {
  const key = keyFor(label, new Set(type.workflows.map((workflow) => workflow.key)));
  const { stages } = type.workflows[0]!;
  return { ...type, workflows: [...type.workflows, { key, label, stages: [stages[0]!, stages.at(-1)!], moves: [] }] };
}

export const withNewRole = (type: RecordType, label: string): RecordType => ({
  ...type,
  roles: [...(type.roles ?? []), { key: keyFor(label, new Set(type.roles?.map(({ key }) => key))), label }],
});

/** Whether a rule, an example or a move names that stage, move or role by its key. */
export const isNamed = ({ rules, examples, recordType }: Definition, key: string): boolean =>
  JSON.stringify([rules, examples, recordType.workflows.map(({ moves }) => moves.map(({ roles }) => roles))]).includes(
    `"${key}"`,
  );
