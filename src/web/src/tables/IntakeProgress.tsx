import { Button, Group, Progress, Text } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { answered, type Problem } from '../api/client';
import { endImport, readImport, type ImportReport, type RowFate } from '../api/generated';
import lines from '../sheet/lines.module.css';
import { inLocale } from '../writing/dates';
import classes from './Tables.module.css';
import { writtenNumber } from '../writing/numbers';

const mostShown = 200;

interface Props {
  /** Number of the import. */
  id: string;
  /** Of a trial, what can be done once it is known how many rows fit. */
  children?: (fitting: number) => ReactNode;
}

/** How far an import is, and what came of each row. */
export function IntakeProgress({ id, children }: Props) {
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
            {progress.isTrial
              ? `${writtenNumber(progress.looked)} of ${writtenNumber(progress.rows)} rows are looked at; nothing is stored yet.`
              : `${writtenNumber(progress.looked)} of ${writtenNumber(progress.rows)} ${progress.isTakingBack ? 'records are taken back' : 'rows are taken in'}. This page may be left; they go on until you sign out.`}
          </Text>
          <Group mt={4}>
            <Progress
              className={classes.grow}
              aria-label={progress.isTakingBack ? 'Records taken back' : 'Rows taken in'}
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
            {progress?.isTrial ? wouldBe(report) : progress?.isTakingBack ? takenBack(report) : wordsOf(report)}{' '}
            {notReached > 0 &&
              `${report.ended ?? ''} ${
                notReached === 1 ? 'One was not come to.' : `${writtenNumber(notReached)} were not come to.`
              }`}
            {progress?.encoding &&
              ` The file does not say in which encoding it is, and was read as ${progress.encoding}: look whether letters with accents are right.`}
          </Text>
          {children?.(report.imported - count(report, 'leaves'))}
          {refused.length > 0 && !progress?.isTakingBack && (
            <Button component="a" variant="default" my="xs" download="refused.csv" href={`/api/imports/${id}/refused.csv`}>
              The refused rows as a file, with why
            </Button>
          )}
          {refused.length > 0 && (
            <table className={classes.table} aria-label="Refused rows">
              <thead>
                <tr>
                  <th className={classes.number}>{progress?.isTakingBack ? 'No.' : 'Row'}</th>
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

const count = ({ rows }: ImportReport, fate: RowFate) => rows.filter((row) => row.fate === fate).length;

function refusedWords({ refused }: ImportReport, isTrial: boolean): string {
  return refused === 0
    ? isTrial
      ? 'None would be refused.'
      : 'None was refused.'
    : isTrial
      ? `${refused === 1 ? 'One row' : `${writtenNumber(refused)} rows`} would be refused.`
      : refused === 1
        ? 'One was refused; the file still has it.'
        : `${writtenNumber(refused)} were refused; the file still has them.`;
}

/** What would come of rows that were only tried. */
function wouldBe(report: ImportReport): string {
  const [begins, changes, leaves] = [count(report, 'begins'), count(report, 'changes'), count(report, 'leaves')];
  const does = [
    ...(begins > 0 ? [`begin ${begins === 1 ? 'one record' : `${writtenNumber(begins)} records`}`] : []),
    ...(changes > 0 ? [`change ${changes === 1 ? 'one' : writtenNumber(changes)}`] : []),
    ...(leaves > 0 ? [`leave ${leaves === 1 ? 'one' : writtenNumber(leaves)} as it is`] : []),
  ].join(', ');
  return `${does ? `It would ${does}.` : 'It would do nothing.'} ${refusedWords(report, true)}`;
}

const takenBack = ({ imported, refused }: ImportReport): string =>
  [
    imported === 1 ? 'One record is as it was before.' : `${writtenNumber(imported)} records are as they were before.`,
    ...(refused > 0 ? [refused === 1 ? 'One stays as it is.' : `${writtenNumber(refused)} stay as they are.`] : []),
  ].join(' ');

const wordsOf = (report: ImportReport): string =>
  `${report.imported === 1 ? 'One row is a record.' : `${writtenNumber(report.imported)} rows are records.`} ${refusedWords(report, false)}`;
