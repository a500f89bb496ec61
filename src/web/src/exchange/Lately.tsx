import { Title } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { answered } from '../api/client';
import { readAudit, type AuditEvent } from '../api/generated';
import { usePeople } from '../api/people';
import { eventWords } from '../auditTrail/eventWords';
import { when } from '../writing/when';
import classes from './Exchange.module.css';

const exchanged: AuditEvent[] = [
  'rulesExported',
  'rulesImported',
  'recordsExported',
  'recordsImported',
  'importTakenBack',
  'published',
];

const most = 12;

/** What went in and out of the record type lately, and by whom. */
export function Lately({ label }: { label: string }) {
  const nameOf = usePeople();
  const entries = useQuery({
    queryKey: ['audit', 'exchange', label],
    queryFn: () => answered(readAudit({ query: { search: label } })),
    gcTime: 0,
  }).data;
  const done = entries?.filter(({ event }) => exchanged.includes(event)).slice(0, most);
  return (
    <section className={classes.sheet} aria-label="Lately">
      <Title order={2} className={classes.heading}>
        Lately
      </Title>
      {done?.length === 0 && <p className={classes.nothing}>Nothing has gone in or out yet.</p>}
      <ol className={classes.done}>
        {done?.map(({ id, at, event, who, about }) => (
          <li key={id}>
            <strong>{eventWords[event]}</strong>
            <span>{about}</span>
            <span className={classes.who}>
              {nameOf(who ?? undefined)}, {when(at)}
            </span>
          </li>
        ))}
      </ol>
    </section>
  );
}
