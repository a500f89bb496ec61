import { Button, MultiSelect, Text } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useEffectEvent } from 'react';
import { answered, type Problem } from '../api/client';
import { readRecordType, type RecordType } from '../api/generated';
import lines from '../sheet/lines.module.css';
import { differing, linkedAs, withLinked } from './linked';

interface Props {
  type: RecordType;
  /** Key of the record type to which the link leads. */
  to: string;
  /** Whether it has just been chosen: then rules may look at all of its fields until somebody says otherwise. */
  isNew: boolean;
  onChange: (type: RecordType) => void;
}

/** What rules may look at of the record to which a link leads: all that the other record type has, or some of it. */
export function LinkedFields({ type, to, isNew, onChange }: Props) {
  const other = useQuery({
    queryKey: ['record-type', to, 'linked'],
    queryFn: () => answered(readRecordType({ path: { key: to } })),
    staleTime: 10_000,
    retry: false,
  });
  const there = other.data?.recordType;
  const known = type.linked?.find(({ key }) => key === to);
  const offered = (there?.fields ?? []).filter(({ retired }) => !retired);
  const taken = (keys: string[]) => there && onChange(withLinked(type, linkedAs(there, keys, known)));
  const takeAll = () => taken(offered.map(({ key }) => key));
  const isToBeTaken = isNew && !known && there !== undefined;
  const take = useEffectEvent(takeAll);
  useEffect(() => {
    if (isToBeTaken) {
      take();
    }
  }, [isToBeTaken]);
  if (to === type.key) {
    return null;
  }
  if (!there) {
    return other.error ? (
      <Text size="xs" className={lines.wrong}>
        {(other.error as Problem).status === 404
          ? 'That record type has not been published yet: until it is, rules cannot look at what its records hold.'
          : 'What the other record type has could not be read. Open the field again.'}
      </Text>
    ) : null;
  }
  const changed = known ? differing(known, there) : [];
  return (
    <>
      <MultiSelect
        size="xs"
        label={`What rules may look at of ${there.label}`}
        placeholder={known ? undefined : 'nothing yet'}
        searchable
        hidePickedOptions
        maxDropdownHeight={280}
        data={[
          ...offered.map(({ key, label }) => ({ value: key, label })),
          // What is no more, or retired, stays until somebody takes it out.
          ...(known?.fields ?? [])
            .filter(({ key }) => !offered.some((one) => one.key === key))
            .map(({ key, label }) => ({ value: key, label })),
        ]}
        value={known?.fields.map(({ key }) => key) ?? []}
        onChange={taken}
      />
      {!known && (
        <Button variant="default" size="compact-sm" onClick={takeAll}>
          All of it
        </Button>
      )}
      {changed.length > 0 && (
        <div role="note">
          <Text size="xs" className={lines.wrong}>
            {there.label} has changed since: {changed.join(', ')}.
          </Text>
          <Button variant="default" size="compact-xs" onClick={() => taken(known?.fields.map(({ key }) => key) ?? [])}>
            Take that over
          </Button>
        </div>
      )}
    </>
  );
}
