import { Button, Progress, Text, Textarea, UnstyledButton } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useState } from 'react';
import { answered, type Problem } from '../api/client';
import { publish, type Definition, type PublicationView } from '../api/generated';
import { useComparison } from '../draftingTable/draft/useComparison';
import { Differences } from '../draftingTable/editions/Differences';
import type { DraftProblems } from '../engine/answers';
import { Dialog } from '../frame/Dialog';
import lines from '../sheet/lines.module.css';
import { Consequences } from './Consequences';
import { FirstEdition } from './FirstEdition';
import { follow } from './follow';
import classes from './Publish.module.css';
import { useConsequences } from './useConsequences';
import { writtenNumber } from '../writing/numbers';

interface Props {
  definition: Definition;
  edition: number | null;
  version: number;
  problems: DraftProblems;
  /** Opens a rule, to be mended. */
  onOpen: (rule: string) => void;
  onSettle: () => Promise<number>;
  onPublished: (edition: number) => void;
}

/** Puts the draft in force as the next edition, with a note, and with what becomes of the records. */
export function Publish({ definition, edition, version, problems, onOpen, onSettle, onPublished }: Props) {
  const { recordType: type, rules } = definition;
  const problemCount = problems.type.length + [...problems.rules.values()].reduce((count, of) => count + of.length, 0);
  const [isOpen, setOpen] = useState(false);
  const [note, setNote] = useState('');
  const [problem, setProblem] = useState<Problem>();
  const [progress, setProgress] = useState<PublicationView>();
  const differences = useComparison(type.key, edition, version, isOpen && problemCount === 0 && edition !== null);
  const consequences = useConsequences(type, isOpen && problemCount === 0 && edition !== null && !progress);

  async function run() {
    setProblem(undefined);
    try {
      const settled = await onSettle();
      const begun = await answered(publish({ path: { key: type.key }, body: { version: settled, note } }));
      const number = await follow(type.key, begun, setProgress);
      onPublished(number);
      notifications.show({ message: `Edition ${number} is in force.`, autoClose: 4000 });
      setOpen(false);
      setNote('');
    } catch (refusal) {
      setProblem(refusal as Problem);
    }
    setProgress(undefined);
  }

  return (
    <>
      <Button onClick={() => setOpen(true)}>Publish…</Button>
      <Dialog
        isOpen={isOpen}
        onClose={() => setOpen(false)}
        title={edition === null ? 'Publish the draft as the first edition' : 'Publish the draft as the next edition'}
        size="lg"
        isHeld
        foot={
          <>
            <Button variant="default" onClick={() => setOpen(false)}>
              Close
            </Button>
            <Button disabled={problemCount > 0 || progress !== undefined} onClick={() => void run()}>
              Publish
            </Button>
          </>
        }
      >
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
            {consequences && consequences.consequences.length > 0 && (
              <section className={classes.changes} aria-label="What becomes of the records">
                <h3>What becomes of the records</h3>
                {consequences.records > 0 && (
                  <Text size="sm">
                    {consequences.records === 1 ? 'One record changes' : `${writtenNumber(consequences.records)} records change`}{' '}
                    along with it, all at once; each keeps what it was in its history.
                  </Text>
                )}
                <Consequences consequences={consequences.consequences} />
              </section>
            )}
            {edition === null && <FirstEdition definition={definition} />}
            {edition !== null && differences && (
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
        {progress?.isRunning && (
          <div role="status">
            <Text size="sm" mt="sm">
              {writtenNumber(progress.looked)} of {writtenNumber(progress.records)} records are worked out. Members go on under
              the edition before until all of it is in force; this may be closed.
            </Text>
            <Progress
              aria-label="Records worked out"
              value={progress.records > 0 ? (100 * progress.looked) / progress.records : 100}
              mt={4}
            />
          </div>
        )}
      </Dialog>
    </>
  );
}
