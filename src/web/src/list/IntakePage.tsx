import { Button, FileButton, Group, Text, Title } from '@mantine/core';
import { useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { Link, useParams, useSearchParams } from 'react-router-dom';
import type { Problem } from '../api/client';
import { answered } from '../api/client';
import { beginImport } from '../api/generated';
import { Place } from '../frame/Place';
import { useRecordType } from '../records/queries';
import lines from '../sheet/lines.module.css';
import { IntakeProgress } from '../tables/IntakeProgress';
import { inLocale } from '../writing/dates';
import { writtenNumber } from '../writing/numbers';
import { Imports } from './Imports';
import classes from './IntakePage.module.css';

/** What is at hand: a file, and whether rows are to count though their records were saved since. */
interface Chosen {
  file: File;
  overwrite: boolean;
}

/** Records from a file, each row under its own record's rules: first it is shown what would come of it, then it is done. */
export function IntakePage() {
  const key = useParams().type ?? '';
  const queries = useQueryClient();
  const type = useRecordType(key).data?.recordType;
  const [address, setAddress] = useSearchParams();
  const running = address.get('import') ?? undefined;
  const [chosen, setChosen] = useState<Chosen>();
  const [trial, setTrial] = useState<string>();
  const [problem, setProblem] = useState<Problem>();
  const heading = useRef<HTMLHeadingElement>(null);

  /** What was pressed goes away as what comes of it is shown. */
  function show(id: string) {
    setAddress({ import: id });
    heading.current?.focus();
  }

  async function send({ file, overwrite }: Chosen, dryRun: boolean) {
    setProblem(undefined);
    setTrial(undefined);
    setAddress({}, { replace: true });
    try {
      const { id } = await answered(
        beginImport({
          path: { key },
          query: { overwrite, dryRun },
          body: file as unknown as string,
          bodySerializer: null,
          headers: { 'Content-Type': file.type || 'text/csv' },
        }),
      );
      if (dryRun) {
        setTrial(id);
      } else {
        setChosen(undefined);
        show(id);
        await queries.invalidateQueries({ queryKey: ['imports'] });
      }
    } catch (mistake) {
      setProblem(mistake as Problem);
    }
  }

  function choose(next: Chosen) {
    setChosen(next);
    void send(next, true);
  }

  return (
    <main className={classes.page}>
      <Place
        steps={[
          { label: 'Record types', to: '/' },
          { label: type?.label ?? key, to: `/types/${key}/records` },
          { label: 'Bring records in' },
        ]}
      />
      <section className={classes.sheet} aria-label="Bring records in">
        <Title order={2} ref={heading} tabIndex={-1}>
          Bring records in from a file
        </Title>
        <Text size="sm" mt="xs">
          A workbook (.xlsx) or separated values (.csv). The first line names the columns, by the labels or keys of fields. A row
          with a number in the column “No.” or “id” changes that record; one without begins a record. Every row is judged by the
          same rules as on a form. Nothing is stored before you have seen what would come of it.
        </Text>
        <Group mt="md">
          <FileButton accept=".csv,.txt,.tsv,.xlsx,text/csv" onChange={(file) => file && choose({ file, overwrite: false })}>
            {(props) => <Button {...props}>{chosen ? 'Choose another file' : 'Choose a file'}</Button>}
          </FileButton>
          {chosen && <Text size="sm">{chosen.file.name}</Text>}
        </Group>
        {problem && (
          <div role="alert" className={classes.problem}>
            <Text className={lines.wrong}>
              {problem.title} {inLocale(problem.detail ?? '')}
            </Text>
            {problem.status === 409 && chosen && (
              <Button mt="xs" variant="default" onClick={() => choose({ ...chosen, overwrite: true })}>
                Overwrite later saves
              </Button>
            )}
          </div>
        )}
        {trial && chosen && (
          <IntakeProgress key={trial} id={trial}>
            {(fitting) => (
              <Group gap="xs" my="xs">
                <Button disabled={fitting === 0} onClick={() => void send(chosen, false)}>
                  Take {writtenNumber(fitting)} {fitting === 1 ? 'row' : 'rows'} in
                </Button>
                <Button
                  variant="default"
                  onClick={() => {
                    setTrial(undefined);
                    setChosen(undefined);
                  }}
                >
                  Leave everything as it is
                </Button>
              </Group>
            )}
          </IntakeProgress>
        )}
        {running && <IntakeProgress key={running} id={running} />}
        {running && (
          <Text size="sm" mt="md">
            <Link to={`/types/${key}/records`}>See the records</Link>
          </Text>
        )}
      </section>
      <Imports recordType={key} onOpen={show} />
    </main>
  );
}
