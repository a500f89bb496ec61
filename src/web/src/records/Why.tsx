import { Popover, Text, UnstyledButton } from '@mantine/core';
import { useState } from 'react';
import type { ElementExplanation, ElementKind } from '../api/generated';
import type { OpenRecord } from '../engine/openRecord';
import { useElement, useSummary } from '../engine/useRecord';
import classes from './Why.module.css';

/** "Why?" beside whatever is locked or asked for: the rule behind it, in words. */
export function Why({ record, kind, elementKey }: { record: OpenRecord; kind: ElementKind; elementKey: string }) {
  const [answer, setAnswer] = useState<ElementExplanation | null>();
  const [wasAsked, setAsked] = useState(false);
  const state = useElement(record, kind, elementKey);
  const { isLive } = useSummary(record);
  const facets = [...(state.isLocked ? ['access'] : []), ...(state.requirement === 'optional' ? [] : ['requirement'])];
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
      width={340}
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
            <Text key={facet.facet} size="sm" role="note">
              {facet.sentence}
            </Text>
          ))}
      </Popover.Dropdown>
    </Popover>
  );
}
