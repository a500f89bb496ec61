import { Button, FileButton, Group, Text, Title } from '@mantine/core';
import { useState } from 'react';
import { Link, useParams } from 'react-router-dom';
import type { Problem } from '../api/client';
import { answered } from '../api/client';
import { beginImport } from '../api/generated';
import { Place } from '../frame/Place';
import { useRecordType } from '../records/queries';
import lines from '../sheet/lines.module.css';
import { inLocale } from '../writing/dates';
import { IntakeProgress } from '../tables/IntakeProgress';
import { refusedFile } from './csvRows';
import classes from './IntakePage.module.css';

/** Records from a file of comma-separated values, each row under its own record's rules. */
export function IntakePage() {
  const key = useParams().type ?? '';
  const type = useRecordType(key).data?.recordType;
  const [file, setFile] = useState<{ name: string; text: string }>();
  const [running, setRunning] = useState<string>();
  const [problem, setProblem] = useState<Problem>();

  async function begin(name: string, text: string, overwrite: boolean) {
    setFile({ name, text });
    setProblem(undefined);
    setRunning(undefined);
    try {
      const { id } = await answered(beginImport({ path: { key }, query: { overwrite }, body: text, bodySerializer: null }));
      setRunning(id);
    } catch (mistake) {
      setProblem(mistake as Problem);
    }
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
        <Title order={2}>Bring records in from CSV</Title>
        <Text size="sm" mt="xs">
          The first line names the columns, by the keys or labels of fields. A row with a number in the column “id” changes that
          record; one without begins a record. Every row is judged by the same rules as on a form; what is refused changes
          nothing.
        </Text>
        <Group mt="md">
          <FileButton
            accept=".csv,text/csv"
            onChange={(chosen) => chosen && void chosen.text().then((text) => begin(chosen.name, text, false))}
          >
            {(props) => <Button {...props}>{file ? 'Choose another file' : 'Choose a file'}</Button>}
          </FileButton>
          {file && <Text size="sm">{file.name}</Text>}
        </Group>
        {problem && (
          <div role="alert" className={classes.problem}>
            <Text className={lines.wrong}>
              {problem.title} {inLocale(problem.detail ?? '')}
            </Text>
            {problem.status === 409 && file && (
              <Button mt="xs" variant="default" onClick={() => void begin(file.name, file.text, true)}>
                Overwrite later saves
              </Button>
            )}
          </div>
        )}
        {running && file && <IntakeProgress key={running} id={running} fileOf={(rows) => refusedFile(file.text, rows)} />}
        {running && (
          <Text size="sm" mt="md">
            <Link to={`/types/${key}/records`}>See the records</Link>
          </Text>
        )}
      </section>
    </main>
  );
}
