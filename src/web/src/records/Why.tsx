import { Anchor, Popover, Text, UnstyledButton } from '@mantine/core';
import { useState } from 'react';
import { Link } from 'react-router-dom';
import type { ElementExplanation, ElementKind } from '../api/generated';
import { useSignedIn } from '../api/signedIn';
import type { OpenRecord } from '../engine/openRecord';
import { useElement, useFromRecord, useSummary } from '../engine/useRecord';
import { inLocale } from '../writing/dates';
import classes from './Why.module.css';

interface Props {
  record: OpenRecord;
  kind: ElementKind;
  elementKey: string;
  /** Key of the record type, whose rules some may see. */
  recordType: string;
}

/** "Why?" beside whatever is locked, asked for or narrowed: the rule behind it, in words, with what made it so. */
export function Why({ record, kind, elementKey, recordType }: Props) {
  const [answer, setAnswer] = useState<ElementExplanation | null>();
  const [wasAsked, setAsked] = useState(false);
  const state = useElement(record, kind, elementKey);
  const { isLive } = useSummary(record);
  const isNarrowed = useFromRecord(
    record,
    () => kind === 'field' && record.field(elementKey).offers !== null,
    `field:${elementKey}`,
  );
  const isAllLocked = useElement(record, 'record', 'record').isLocked && kind !== 'record';
  const facets = [
    ...(state.isLocked && !isAllLocked ? ['access'] : []),
    ...(state.requirement === 'optional' || (state.requirement === 'toMoveOn' && !record.leadsOn) ? [] : ['requirement']),
    ...(isNarrowed ? ['choices'] : []),
  ];
  if (!isLive || !state.isVisible || facets.length === 0) {
    return null;
  }
  const ask = () => {
    setAsked(true);
    return answer === undefined ? void record.explain(kind, elementKey).then(setAnswer) : setAnswer(undefined);
  };
  if (!wasAsked) {
    // Most are never pressed, and a popover for each would be most of what a form costs.
    return (
      <UnstyledButton className={classes.why} onClick={ask}>
        Why?
      </UnstyledButton>
    );
  }
  return (
    <Popover
      opened={answer !== undefined}
      onChange={() => setAnswer(undefined)}
      width={360}
      withArrow
      shadow="md"
      trapFocus={false}
    >
      <Popover.Target>
        <UnstyledButton className={classes.why} autoFocus onClick={ask}>
          Why?
        </UnstyledButton>
      </Popover.Target>
      <Popover.Dropdown className={classes.answer}>
        {answer?.facets
          .filter((facet) => facets.includes(facet.facet))
          .map((facet) => (
            <div key={facet.facet} role="note">
              <Text size="sm">{inLocale(facet.sentence)}</Text>
              {facet.winner && <Behind claim={facet.winner} recordType={recordType} />}
            </div>
          ))}
      </Popover.Dropdown>
    </Popover>
  );
}

/** What stands behind a rule's word: the values as they are, the reason its author gives, and the way to it for those who may go. */
function Behind({
  claim,
  recordType,
}: {
  claim: NonNullable<ElementExplanation['facets'][number]['winner']>;
  recordType: string;
}) {
  const isAdministrator = useSignedIn().data?.person?.isAdministrator ?? false;
  return (
    <>
      {claim.clauses.length > 0 && (
        <ul className={classes.values}>
          {claim.clauses.map(({ place, sentence, present, holds }) => (
            <li key={place} data-holds={holds}>
              {inLocale(sentence)}
              {holds ? '' : ' (not so)'}: it is {inLocale(present)}
            </li>
          ))}
        </ul>
      )}
      {claim.reason && (
        <Text size="sm" fs="italic">
          {claim.reason}
        </Text>
      )}
      {isAdministrator && (
        <Anchor component={Link} size="sm" to={`/types/${recordType}/rules?rule=${encodeURIComponent(claim.rule)}`}>
          Open rule {claim.number}
        </Anchor>
      )}
    </>
  );
}
