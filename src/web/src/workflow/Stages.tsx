import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core';
import { horizontalListSortingStrategy, SortableContext, sortableKeyboardCoordinates, useSortable } from '@dnd-kit/sortable';
import { ActionIcon, Menu } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { IconArrowLeft, IconArrowRight, IconGripVertical, IconPlus, IconX } from '@tabler/icons-react';
import { useState, type ReactNode } from 'react';
import type { Definition, RecordType, Reshape, Stage, Workflow } from '../api/generated';
import type { Ways } from '../engine/answers';
import { recordsOf } from '../fields/useHoldings';
import { Begin } from '../frame/Begin';
import { Typed } from '../frame/Typed';
import lines from '../sheet/lines.module.css';
import { isNamed, withNewStage, withoutStage, withStageLabel, withStageMoved } from './edits';
import { Picture, stageWidth } from './Picture';
import classes from './Workflow.module.css';

interface Props {
  definition: Definition;
  workflow: Workflow;
  /** Where its moves lead; undefined until that is known. */
  ways: Ways | undefined;
  /** The workflow as the edition in force has it: records may stand at its stages. */
  held: Workflow | undefined;
  /** How many records stand at each stage, by its key; undefined until they have been counted. */
  counts: Record<string, number> | undefined;
  onChange: (part: Partial<Workflow>) => void;
  onType: (type: RecordType) => void;
  onReshape: (reshape: Reshape) => void;
}

/** The stages as stations of a dimension line, in their order, with the moves as arrows. A record begins at the first. */
export function Stages({ definition, workflow, ways, held, counts, onChange, onType, onReshape }: Props) {
  const { recordType: type } = definition;
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const [begun, setBegun] = useState<string>();
  const keys = workflow.stages.map(({ key }) => key);

  function drop({ active, over }: DragEndEvent) {
    const [from, to] = [keys.indexOf(String(active.id)), keys.indexOf(String(over?.id))];
    if (from >= 0 && to >= 0 && from !== to) {
      onChange(withStageMoved(workflow, from, to - from));
    }
  }

  return (
    <>
      <div className={classes.wide}>
        <Picture type={type} workflow={workflow} />
        <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={drop}>
          <SortableContext items={keys} strategy={horizontalListSortingStrategy}>
            <ol className={classes.line} aria-label={`Stages of ${workflow.label}`}>
              {workflow.stages.map((stage, i) => (
                <Station
                  key={stage.key}
                  stage={stage}
                  at={i}
                  count={
                    held?.stages.some(({ key }) => key === stage.key) ? (counts?.[stage.key] ?? (counts ? 0 : undefined)) : null
                  }
                  isNamed={isNamed(definition, stage.key)}
                  others={workflow.stages.filter(({ key }) => key !== stage.key)}
                  isUnreached={ways?.unreached.includes(stage.key) ?? false}
                  isStuck={ways?.stuck.includes(stage.key) ?? false}
                  onLabel={(label) => onType(withStageLabel(type, stage.key, label))}
                  onMove={(by) => onChange(withStageMoved(workflow, i, by))}
                  isBegun={stage.key === begun}
                  onInsert={() => {
                    const part = withNewStage(type, workflow, i, 'New stage');
                    setBegun(part.stages?.[i + 1]?.key);
                    onChange(part);
                  }}
                  onRemove={() => {
                    const { part, told } = withoutStage(workflow, stage.key);
                    onChange(part);
                    if (told.length > 0) {
                      notifications.show({ title: `${stage.label} is deleted.`, message: told.join(' '), autoClose: 9000 });
                    }
                  }}
                  onSend={(to) => onReshape({ kind: 'stage', workflow: workflow.key, from: stage.key, to })}
                />
              ))}
            </ol>
          </SortableContext>
        </DndContext>
      </div>
      <Begin
        what={`stage of ${workflow.label}`}
        onBegin={(label) => onChange(withNewStage(type, workflow, workflow.stages.length - 1, label))}
      >
        Add the stage
      </Begin>
    </>
  );
}

interface StationProps {
  stage: Stage;
  at: number;
  /** How many records stand at it; undefined until they have been counted, null where none can. */
  count: number | null | undefined;
  isNamed: boolean;
  /** Whether it has just been put there: its name is what is written next. */
  isBegun: boolean;
  others: Stage[];
  isUnreached: boolean;
  isStuck: boolean;
  onLabel: (label: string) => void;
  onMove: (by: number) => void;
  onInsert: () => void;
  onRemove: () => void;
  onSend: (to: string) => void;
}

function Station({ stage, at, count, others, onSend, ...props }: StationProps) {
  const { attributes, listeners, setNodeRef, transform, isDragging } = useSortable({ id: stage.key });
  const isOnly = others.length === 0;
  return (
    <li
      ref={setNodeRef}
      className={classes.station}
      data-dragging={isDragging || undefined}
      style={{ width: stageWidth, transform: transform ? `translateX(${transform.x}px)` : undefined }}
    >
      <Typed
        isBegun={props.isBegun}
        aria-label={`Stage ${at + 1}`}
        value={stage.label}
        onDone={(label) => label && props.onLabel(label)}
      />
      <div className={classes.tools}>
        <button type="button" className={classes.grip} aria-label={`Drag ${stage.label}`} {...attributes} {...listeners}>
          <IconGripVertical size={14} />
        </button>
        <Tool label={`${stage.label} earlier`} isDisabled={at === 0} onPress={() => props.onMove(-1)}>
          <IconArrowLeft size={14} />
        </Tool>
        <Tool label={`${stage.label} later`} isDisabled={at === others.length} onPress={() => props.onMove(1)}>
          <IconArrowRight size={14} />
        </Tool>
        <Tool label={`Insert a stage after ${stage.label}`} onPress={props.onInsert}>
          <IconPlus size={14} />
        </Tool>
        {count === null ? (
          <Tool
            label={`Delete ${stage.label}`}
            hint={props.isNamed ? 'A rule or an example names it.' : isOnly ? 'A record needs one.' : undefined}
            isDisabled={props.isNamed || isOnly}
            onPress={props.onRemove}
          >
            <IconX size={14} />
          </Tool>
        ) : (
          <Menu position="bottom-end">
            <Menu.Target>
              <ActionIcon variant="subtle" size="md" aria-label={`Delete ${stage.label}`} disabled={isOnly}>
                <IconX size={14} />
              </ActionIcon>
            </Menu.Target>
            <Menu.Dropdown>
              <Menu.Label>
                {count === undefined || count === 0 ? 'Records that stand at it then go to' : `Its ${recordsOf(count)} go to`}
              </Menu.Label>
              {others.map(({ key, label }) => (
                <Menu.Item key={key} onClick={() => onSend(key)}>
                  {label}
                </Menu.Item>
              ))}
            </Menu.Dropdown>
          </Menu>
        )}
      </div>
      {count !== null && count !== undefined && <p className={classes.count}>{recordsOf(count)}</p>}
      {props.isUnreached && <p className={lines.wrong}>No way leads here.</p>}
      {props.isStuck && <p className={lines.wrong}>No way leads on to an end.</p>}
    </li>
  );
}

interface ToolProps {
  label: string;
  /** Why it cannot be done. */
  hint?: string;
  isDisabled?: boolean;
  onPress: () => void;
  children: ReactNode;
}

const Tool = ({ label, hint, isDisabled = false, onPress, children }: ToolProps) => (
  <ActionIcon variant="subtle" size="md" aria-label={label} title={hint ?? label} disabled={isDisabled} onClick={onPress}>
    {children}
  </ActionIcon>
);
