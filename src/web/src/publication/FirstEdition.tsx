import type { Definition } from '../api/generated';
import classes from './Publish.module.css';

/** What there is to be published where nothing has been yet: there is nothing to compare it with. */
export function FirstEdition({ definition }: { definition: Definition }) {
  const { recordType: type, rules } = definition;
  const fields = type.fields.filter(({ retired }) => !retired);
  const parts: [string, string[]][] = [
    [counted(fields.length, 'field'), fields.map(({ label }) => label)],
    [counted(type.forms.length, 'form'), type.forms.map(({ label }) => label)],
    ...type.workflows.map(({ label, stages }): [string, string[]] => [
      `${label}: ${counted(stages.length, 'stage')}`,
      stages.map((stage) => stage.label),
    ]),
    [counted(rules.length, 'rule'), rules.map(({ name }) => name)],
  ];
  return (
    <section className={classes.changes} aria-label="What there will be">
      <h3>What there will be</h3>
      <ul>
        {parts.map(([what, names]) => (
          <li key={what}>
            <strong>{what}</strong>
            {names.length > 0 && <span>: {names.join(', ')}</span>}
          </li>
        ))}
      </ul>
    </section>
  );
}

const counted = (count: number, what: string) => `${count === 0 ? 'no' : count} ${count === 1 ? what : `${what}s`}`;
