import { Button, Group, Text } from '@mantine/core';
import { Differences } from '../draftingTable/editions/Differences';
import lines from '../sheet/lines.module.css';
import classes from './Exchange.module.css';
import type { Incoming } from './useIncoming';

interface Props {
  looked: Incoming;
  onTake: () => void;
  onLeave: () => void;
}

/** What a file would change, or has changed. */
export function Looked({ looked, onTake, onLeave }: Props) {
  const canBeTaken =
    !looked.isTaken && (looked.kind === 'rules' ? looked.view.comparison.differences.length > 0 : looked.report.imported > 0);
  return (
    <div className={classes.looked} role="status">
      <Text fw={600}>
        {looked.name}
        {looked.isTaken ? ': taken over' : ' would change this'}
      </Text>
      {looked.kind === 'rules' ? (
        <>
          <Differences differences={looked.view.comparison.differences} />
          {looked.view.comparison.problems.map(({ place, what, mend }) => (
            <Text key={place + what} size="sm" className={lines.wrong}>
              {what} {mend}
            </Text>
          ))}
        </>
      ) : (
        <>
          <Text size="sm">
            {looked.report.imported} rows {looked.isTaken ? 'came in' : 'can come in'}, {looked.report.refused}{' '}
            {looked.isTaken ? 'were refused' : 'cannot'}.
            {(looked.report.notReached ?? 0) > 0 && ` ${looked.report.ended ?? ''} ${looked.report.notReached} were not come to.`}
          </Text>
          {(looked.report.latest ?? []).map((record) => (
            <Text key={record} size="sm" className={lines.wrong}>
              The file does not say from which version it was made: {record}
            </Text>
          ))}
          <ul className={classes.rows}>
            {looked.report.rows
              .filter(({ reasons }) => reasons.length > 0)
              .slice(0, mostRows)
              .map(({ line, reasons }) => (
                <li key={line}>
                  Line {line}: {reasons.join(' ')}
                </li>
              ))}
          </ul>
        </>
      )}
      <Group gap={6}>
        {canBeTaken && (
          <Button onClick={onTake}>{looked.kind === 'rules' ? 'Take it into the draft' : 'Bring these records in'}</Button>
        )}
        <Button variant="default" onClick={onLeave}>
          Close
        </Button>
      </Group>
    </div>
  );
}

const mostRows = 200;
