import { Anchor, Text, Title } from '@mantine/core';
import { Link } from 'react-router-dom';
import { IntakeProgress } from './IntakeProgress';
import classes from './Tables.module.css';

/** The rows coming in, and then what came of each. */
export function Intake({ recordType, label, id }: { recordType: string; label: string; id: string }) {
  return (
    <main className={classes.page}>
      <section className={classes.sheet} aria-label={`Rows of ${label}`}>
        <Title order={2} className={classes.heading}>
          {label} is there
        </Title>
        <Text size="sm">
          Its first edition is in force.{' '}
          <Anchor component={Link} to={`/types/${recordType}/records`}>
            See the records
          </Anchor>
          {', or go on drawing: '}
          <Anchor component={Link} to={`/types/${recordType}/forms`}>
            the form
          </Anchor>
          {', '}
          <Anchor component={Link} to={`/types/${recordType}/rules`}>
            the rules
          </Anchor>
          {', '}
          <Anchor component={Link} to={`/types/${recordType}/workflow`}>
            the workflow
          </Anchor>
          .
        </Text>
        <IntakeProgress id={id} />
      </section>
    </main>
  );
}
