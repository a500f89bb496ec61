import { Button, Group, Progress, Text } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { answered, type Problem } from '../api/client';
import { endImport, readImport, type RowReport } from '../api/generated';
import lines from '../sheet/lines.module.css';
import { inLocale } from '../writing/dates';
import classes from './Tables.module.css';
import { writtenNumber } from '../writing/numbers';

const mostShown = 200;

interface Props {
  /** Number of the import. */
  id: string;
  /** The refused rows as a file, with why beside each, to be mended and sent again; by default they are told and not handed out. */
  fileOf?: (rows: RowReport[]) => string;
}

/** How far an import is, and what came of each row. */
export function IntakeProgress({ id, fileOf }: Props) {
  const found = useQuery({
    queryKey: ['import', id],
    queryFn: () => answered(readImport({ path: { id } })),
    refetchInterval: ({ state }) => (state.data?.report || state.data?.failure || state.error ? false : 500),
  });
  const progress = found.data;
  const problem = found.error as Problem | null;
  const report = progress?.report;
  const notReached = report?.notReached ?? 0;
  const refused = report?.rows.filter(({ reasons }) => reasons.length > 0) ?? [];
  return (
    <>
      {(problem || progress?.failure) && (
        <Text className={lines.wrong} role="alert">
          {problem ? `${problem.title} ${problem.detail}` : progress?.failure}
        </Text>
      )}
      {progress && !report && !progress.failure && (
        <div role="status">
          <Text size="sm" mt="sm">
            {writtenNumber(progress.looked)} of {writtenNumber(progress.rows)} rows are taken in. This page may be left; they
            go on until you sign out.
          </Text>
          <Group mt={4}>
            <Progress
              className={classes.grow}
              aria-label="Rows taken in"
              value={progress.rows > 0 ? (100 * progress.looked) / progress.rows : 100}
            />
            <Button variant="default" onClick={() => void endImport({ path: { id } })}>
              End it here
            </Button>
          </Group>
        </div>
      )}
      {report && (
        <>
          <Text size="sm" mt="sm" role="status">
            {report.imported === 1 ? 'One row is a record.' : `${writtenNumber(report.imported)} rows are records.`}{' '}
            {refused.length === 0
              ? 'None was refused.'
              : refused.length === 1
                ? 'One was refused; the file still has it.'
                : `${writtenNumber(refused.length)} were refused; the file still has them.`}{' '}
            {notReached > 0 &&
              `${report.ended ?? ''} ${
                notReached === 1 ? 'One row was not come to.' : `${writtenNumber(notReached)} rows were not come to.`
              }`}
          </Text>
          {refused.length > 0 && fileOf && (
            <Button
              component="a"
              variant="default"
              mt="xs"
              download="refused.csv"
              href={`data:text/csv;charset=utf-8,${encodeURIComponent(fileOf(report.rows))}`}
            >
              The refused rows as a file, with why
            </Button>
          )}
          {refused.length > 0 && (
            <table className={classes.table} aria-label="Refused rows">
              <thead>
                <tr>
                  <th>Row</th>
                  <th>Why</th>
                </tr>
              </thead>
              <tbody>
                {refused.slice(0, mostShown).map(({ line, reasons }) => (
                  <tr key={line}>
                    <td className={classes.number}>{line}</td>
                    <td>{inLocale(reasons.join(' '))}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          {refused.length > mostShown && <Text size="sm">and {writtenNumber(refused.length - mostShown)} more.</Text>}
        </>
      )}
    </>
  );
}
