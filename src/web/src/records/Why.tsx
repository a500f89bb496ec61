import { Popover, Text, UnstyledButton } from '@mantine/core';
import { useState } from 'react';
import type { ElementKind } from '../api/generated';
import type { FormRecord } from '../engine/formRecord';
import classes from './Why.module.css';

/** "Why?" beside whatever is locked or asked for: the rule behind it, in words. */
export function Why({ record, kind, elementKey }: { record: FormRecord; kind: ElementKind; elementKey: string }) {
  const [isOpen, setOpen] = useState(false);
  const state = record.state(kind, elementKey);
  const facets = [...(state.isLocked ? ['access'] : []), ...(state.requirement === 'optional' ? [] : ['requirement'])];
  if (!record.isLive || !state.isVisible || facets.length === 0) {
    return null;
  }
  return (
    <Popover opened={isOpen} onChange={setOpen} width={340} withArrow shadow="md" trapFocus={false}>
      <Popover.Target>
        <UnstyledButton className={classes.why} onClick={() => setOpen(!isOpen)}>
          Why?
        </UnstyledButton>
      </Popover.Target>
      <Popover.Dropdown className={classes.answer}>
        {isOpen &&
          record
            .explain(kind, elementKey)
            ?.facets.filter((facet) => facets.includes(facet.facet))
            .map((facet) => (
              <Text key={facet.facet} size="sm" role="note">
                {facet.sentence}
              </Text>
            ))}
      </Popover.Dropdown>
    </Popover>
  );
}
