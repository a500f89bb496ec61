import { Button, Group, Text, Textarea, UnstyledButton } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useState } from 'react';
import { answered, type Problem } from '../../api/client';
import { publish, type Rule } from '../../api/generated';
import type { DraftProblems } from '../../engine/answers';
import { Dialog } from '../../frame/Dialog';
import lines from '../../sheet/lines.module.css';
import { Differences } from '../editions/Differences';
import classes from './Publish.module.css';
import { useComparison } from './useComparison';

interface Props {
  recordType: string;
  edition: number | null;
  version: number;
  problems: DraftProblems;
  rules: Rule[];
  /** Opens a rule, to be mended. */
  onOpen: (rule: string) => void;
  onSettle: () => Promise<number>;
  onPublished: (edition: number, version: number) => void;
}

/** Puts the draft in force as the next edition, with a note. */
export function Publish({ recordType, edition, version, problems, rules, onOpen, onSettle, onPublished }: Props) {
  const problemCount = problems.type.length + [...problems.rules.values()].reduce((count, of) => count + of.length, 0);
  const [isOpen, setOpen] = useState(false);
  const [note, setNote] = useState('');
  const [problem, setProblem] = useState<Problem>();
  const differences = useComparison(recordType, edition, version, isOpen && problemCount === 0);

  async function run() {
    setProblem(undefined);
    try {
      const version = await onSettle();
      const published = await answered(publish({ path: { key: recordType }, body: { version, note } }));
      onPublished(published.number, published.version);
      notifications.show({ message: `Edition ${published.number} is in force.`, autoClose: 4000 });
      setOpen(false);
      setNote('');
    } catch (refusal) {
      setProblem(refusal as Problem);
    }
  }

  return (
    <>
      <Button onClick={() => setOpen(true)}>Publish…</Button>
      <Dialog isOpen={isOpen} onClose={() => setOpen(false)} title="Publish the draft as the next edition" size="lg">
        {problemCount > 0 ? (
          <>
            <Text size="sm">
              {problemCount === 1 ? 'One problem keeps' : `${problemCount} problems keep`} the draft from being published. Press
              one to mend it.
            </Text>
            <ul className={classes.problems}>
              {problems.type.map((problem) => (
                <li key={problem.place + problem.what}>
                  {problem.what} {problem.mend}
                </li>
              ))}
              {[...problems.rules].flatMap(([place, found]) =>
                found.map((problem) => (
                  <li key={`${place}${problem.place}${problem.what}`}>
                    <UnstyledButton
                      className={classes.problem}
                      onClick={() => {
                        setOpen(false);
                        onOpen(rules[place]!.key);
                      }}
                    >
                      {place + 1} {rules[place]?.name}: {problem.what}
                    </UnstyledButton>
                  </li>
                )),
              )}
            </ul>
          </>
        ) : (
          <>
            <Textarea
              label="What is new?"
              data-autofocus
              autosize
              minRows={2}
              value={note}
              onChange={(event) => setNote(event.currentTarget.value)}
            />
            <Text size="xs" c="dimmed" mt={4}>
              Members work under it from their next step on.
            </Text>
            {differences && (
              <section className={classes.changes} aria-label="What will change">
                <h3>What will change</h3>
                <Differences differences={differences} />
              </section>
            )}
          </>
        )}
        {problem && (
          <Text className={lines.wrong} role="alert">
            {problem.title} {problem.detail}
          </Text>
        )}
        <Group justify="flex-end" mt="md">
          <Button variant="default" onClick={() => setOpen(false)}>
            Not yet
          </Button>
          <Button disabled={problemCount > 0} onClick={() => void run()}>
            Publish
          </Button>
        </Group>
      </Dialog>
    </>
  );
}
