import { Button, FileButton, Text, Title } from '@mantine/core';
import { useState, type DragEvent } from 'react';
import type { Drawing } from '../draftingTable/draft/Drawn';
import lines from '../sheet/lines.module.css';
import classes from './Exchange.module.css';
import { Lately } from './Lately';
import { Looked } from './Looked';
import { useIncoming } from './useIncoming';

/** Files out, and files in: what one would change is shown before anything is changed. */
export function ExchangeSheet({ draft }: Drawing) {
  const { recordType: type } = draft.definition;
  const incoming = useIncoming(type.key, draft.shared);
  const [isOver, setOver] = useState(false);
  const draftFile = (form: string) => `/api/record-types/${type.key}/draft/exports/${form}`;

  function drop(event: DragEvent) {
    event.preventDefault();
    setOver(false);
    const [file] = event.dataTransfer.files;
    if (file) {
      void incoming.look(file);
    }
  }

  return (
    <main
      className={classes.page}
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={drop}
    >
      <section className={classes.sheet} aria-label="In" data-over={isOver || undefined}>
        <Title order={2} className={classes.heading}>
          In
        </Title>
        <Text size="sm">
          Drag a file onto this page, or choose one: a pack (JSON) or decision tables (DMN) for the draft, or records (CSV). What
          it would change is shown first.
        </Text>
        <FileButton accept=".json,.dmn,.xml,.csv" onChange={(file) => file && void incoming.look(file)}>
          {(props) => (
            <Button mt="xs" {...props}>
              Choose a file…
            </Button>
          )}
        </FileButton>
        {incoming.problem && (
          <div role="alert" className={lines.wrong}>
            {incoming.problem.title} {incoming.problem.detail}
            <ul>
              {(incoming.problem.problems ?? []).map(({ place, what, mend }) => (
                <li key={place + what}>
                  {what} {mend}
                </li>
              ))}
            </ul>
          </div>
        )}
        {incoming.looked && <Looked looked={incoming.looked} onTake={() => void incoming.take()} onLeave={incoming.leave} />}
      </section>
      <section className={classes.sheet} aria-label="Out">
        <Title order={2} className={classes.heading}>
          Out
        </Title>
        <dl className={classes.files}>
          <File href={draftFile('pack')} name="Pack of the draft">
            Everything: record type, rules and examples, as JSON with a published schema. It goes into another installation as it
            is.
          </File>
          <File href={draftFile('dmn')} name="Decision tables">
            The tables among the rules in DMN, for other tools of that standard.
          </File>
          <File href={draftFile('schema')} name="JSON Schema">
            What a new record has to hold to be saved, for programs that send records.
          </File>
          {draft.edition !== null && (
            <File href={`/api/record-types/${type.key}/records.csv`} name="Records">
              All records as comma-separated values, with the versions that they have.
            </File>
          )}
        </dl>
      </section>
      <Lately label={type.label} />
    </main>
  );
}

const File = ({ href, name, children }: { href: string; name: string; children: string }) => (
  <>
    <dt>
      <a href={href} download>
        {name}
      </a>
    </dt>
    <dd>{children}</dd>
  </>
);
