import { Button, Group, Text, Title } from '@mantine/core';
import type { Drawing } from '../draftingTable/draft/Drawn';
import { useReshape } from '../draftingTable/draft/useReshape';
import { useHoldings } from '../fields/useHoldings';
import { Begin } from '../frame/Begin';
import { Typed } from '../frame/Typed';
import lines from '../sheet/lines.module.css';
import { isNamed, withNewRole, withNewWorkflow, withWorkflow, withWorkflowFirst } from './edits';
import { Moves } from './Moves';
import { Stages } from './Stages';
import { useWays } from './useWays';
import classes from './Workflow.module.css';

/** Each workflow as a dimension line with its moves below; then the roles. */
export function WorkflowSheet({ draft, published, problems, program }: Drawing) {
  const ways = useWays(program);
  const { definition, changeType } = draft;
  const reshape = useReshape(draft.shared);
  const { recordType: type } = definition;
  const holdings = useHoldings(type.key, published !== undefined);
  const mistakes = problems.type.filter(({ place }) => /^\/recordType\/(workflows|roles)/.test(place));
  return (
    <main className={classes.page}>
      {mistakes.map((mistake) => (
        <Text key={mistake.place + mistake.what} className={lines.wrong} role="alert" size="sm">
          {mistake.what} {mistake.mend}
        </Text>
      ))}
      {type.workflows.map((workflow, i) => {
        const change = (part: Partial<typeof workflow>) => changeType(withWorkflow(type, workflow.key, part));
        const held = published?.workflows.find(({ key }) => key === workflow.key);
        return (
          <section key={workflow.key} className={classes.sheet} aria-label={`The workflow ${workflow.label}`}>
            <Group justify="space-between">
              <Title order={2} className={classes.heading}>
                {workflow.label}
              </Title>
              <Group gap={6}>
                {i === 0 ? (
                  <Text size="sm" c="dimmed">
                    New records begin in it.
                  </Text>
                ) : (
                  <Button variant="default" onClick={() => changeType(withWorkflowFirst(type, workflow.key))}>
                    Let new records begin in it
                  </Button>
                )}
                <Typed
                  aria-label={`Name of the workflow ${workflow.label}`}
                  w={180}
                  value={workflow.label}
                  onDone={(label) => label && change({ label })}
                />
                <Button
                  variant="default"
                  disabled={type.workflows.length === 1 || held !== undefined}
                  onClick={() => changeType({ ...type, workflows: type.workflows.filter(({ key }) => key !== workflow.key) })}
                >
                  Delete
                </Button>
              </Group>
            </Group>
            <Stages
              definition={definition}
              workflow={workflow}
              ways={ways[i]}
              held={held}
              counts={holdings && (holdings.stages[workflow.key] ?? {})}
              onChange={change}
              onType={changeType}
              onReshape={(one) => void reshape(one)}
            />
            <Moves type={type} workflow={workflow} onChange={change} />
          </section>
        );
      })}
      <section className={classes.sheet} aria-label="Roles">
        <Title order={2} className={classes.heading}>
          Roles
        </Title>
        <Text size="sm" c="dimmed">
          Who has which is said under People. Moves and rules name them.
        </Text>
        <ul className={classes.roles}>
          {(type.roles ?? []).map((role) => (
            <li key={role.key}>
              <Typed
                aria-label={`Name of the role ${role.label}`}
                value={role.label}
                onDone={(label) =>
                  label &&
                  changeType({ ...type, roles: type.roles?.map((one) => (one.key === role.key ? { ...one, label } : one)) })
                }
              />
              <Button
                size="compact-sm"
                variant="default"
                disabled={isNamed(definition, role.key)}
                title={isNamed(definition, role.key) ? 'A move or a rule names it.' : undefined}
                onClick={() => changeType({ ...type, roles: type.roles?.filter(({ key }) => key !== role.key) })}
              >
                Delete
              </Button>
            </li>
          ))}
        </ul>
        <Begin what="role" onBegin={(label) => changeType(withNewRole(type, label))}>
          Add the role
        </Begin>
      </section>
      <div className={classes.more}>
        <Begin what="workflow" onBegin={(label) => changeType(withNewWorkflow(type, label))}>
          Add another workflow
        </Begin>
      </div>
    </main>
  );
}
