import { Text } from '@mantine/core';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { answered } from '../../api/client';
import { countInForce } from '../../api/generated';
import { writtenNumber } from '../../writing/numbers';

interface Props {
  recordType: string;
  rule: string;
  /** The stored version of the draft: what is written and not stored yet is not counted. */
  version: number;
}

/** In how many of the records that there are the rule would be in force now. */
export function InForceCount({ recordType, rule, version }: Props) {
  const count = useQuery({
    queryKey: ['in-force', recordType, rule, version],
    queryFn: () => answered(countInForce({ path: { key: recordType, rule } })),
    placeholderData: keepPreviousData,
    retry: false,
    staleTime: 30_000,
  }).data;
  return count && count.looked > 0 ? (
    <Text size="xs" c="dimmed" role="status">
      In force for {writtenNumber(count.inForce)} of {count.looked < count.records ? 'the first ' : ''}
      {writtenNumber(count.looked)} records now, as they are saved.
    </Text>
  ) : null;
}
