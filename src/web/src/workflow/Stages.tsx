import { ActionIcon } from '@mantine/core';
import { IconArrowLeft, IconArrowRight, IconX } from '@tabler/icons-react';
import type { ReactNode } from 'react';
import type { Definition, RecordType, Workflow } from '../api/generated';
import type { Ways } from '../engine/answers';
import { Begin } from '../frame/Begin';
import { Typed } from '../frame/Typed';
import lines from '../sheet/lines.module.css';
import { isNamed, withNewStage, withoutStage, withStageLabel, withStageMoved } from './edits';
import classes from './Workflow.module.css';

interface Props {
  definition: Definition;
  workflow: Workflow;
  /** Where its moves lead; undefined until that is known. */
  ways: Ways | undefined;
  /** The workflow as the edition in force has it: records may stand at its stages. */
  held: Workflow | undefined;
  onChange: (part: Partial<Workflow>) => void;
  onType: (type: RecordType) => void;
}

/** The stages as stations of a dimension line, in their order. A record begins at the first. */
export function Stages({ definition, workflow, ways, held, onChange, onType }: Props) {
  const { recordType: type } = definition;
  return (
    <>
      <ol className={classes.line} aria-label={`Stages of ${workflow.label}`}>
        {workflow.stages.map((stage, i) => {
          const why = held?.stages.some(({ key }) => key === stage.key)
            ? 'Records may stand at it.'
            : isNamed(definition, stage.key)
              ? 'A rule or an example names it.'
              : workflow.stages.length === 1
                ? 'A record needs one.'
                : undefined;
          return (
            <li key={stage.key} className={classes.station}>
              <Typed
                aria-label={`Stage ${i + 1}`}
                value={stage.label}
                onDone={(label) => label && onType(withStageLabel(type, stage.key, label))}
              />
              <div className={classes.tools}>
                <Tool
                  label={`${stage.label} earlier`}
                  isDisabled={i === 0}
                  onPress={() => onChange(withStageMoved(workflow, i, -1))}
                >
                  <IconArrowLeft size={14} />
                </Tool>
                <Tool
                  label={`${stage.label} later`}
                  isDisabled={i === workflow.stages.length - 1}
                  onPress={() => onChange(withStageMoved(workflow, i, 1))}
                >
                  <IconArrowRight size={14} />
                </Tool>
                <Tool
                  label={`Take ${stage.label} away`}
                  hint={why}
                  isDisabled={why !== undefined}
                  onPress={() => onChange(withoutStage(workflow, stage.key))}
                >
                  <IconX size={14} />
                </Tool>
              </div>
              {ways?.unreached.includes(stage.key) && <p className={lines.wrong}>No way leads here.</p>}
              {ways?.stuck.includes(stage.key) && <p className={lines.wrong}>No way leads on to an end.</p>}
            </li>
          );
        })}
      </ol>
      <Begin
        what={`stage of ${workflow.label}`}
        onBegin={(label) => onChange(withNewStage(type, workflow, workflow.stages.length - 1, label))}
      >
        Add the stage
      </Begin>
    </>
  );
}

interface ToolProps {
  label: string;
  /** Why it cannot be done. */
  hint?: string;
  isDisabled: boolean;
  onPress: () => void;
  children: ReactNode;
}

const Tool = ({ label, hint, isDisabled, onPress, children }: ToolProps) => (
  <ActionIcon variant="subtle" size="md" aria-label={label} title={hint ?? label} disabled={isDisabled} onClick={onPress}>
    {children}
  </ActionIcon>
);
