import { SegmentedControl } from '@mantine/core';
import type { Element, RecordType, Rest } from '../../api/generated';
import { restOf } from '../rule/resting';
import classes from './ElementPanel.module.css';

/** How it is when no rule speaks. */
export function Resting({
  type,
  element,
  onRest,
}: {
  type: RecordType;
  element: Element;
  onRest: (rest: Partial<Rest>) => void;
}) {
  if (element.kind === 'part' || element.kind === 'record') {
    return null;
  }
  const rest = restOf(type, element);
  return (
    <div className={classes.row}>
      <span className={classes.caption}>At rest</span>
      <SegmentedControl
        size="xs"
        aria-label="Visibility at rest"
        data={[
          { value: 'shown', label: 'shown' },
          { value: 'hidden', label: 'hidden' },
        ]}
        value={rest?.visibility ?? 'shown'}
        onChange={(visibility) => onRest({ visibility: visibility as Rest['visibility'] })}
      />
      <SegmentedControl
        size="xs"
        aria-label="Requirement at rest"
        data={[
          { value: 'optional', label: 'optional' },
          { value: 'toMoveOn', label: 'required to move on' },
          { value: 'toSave', label: 'to save' },
        ]}
        value={rest?.requirement ?? 'optional'}
        onChange={(requirement) => onRest({ requirement: requirement as Rest['requirement'] })}
      />
      <SegmentedControl
        size="xs"
        aria-label="Access at rest"
        data={[
          { value: 'open', label: 'open' },
          { value: 'locked', label: 'locked' },
        ]}
        value={rest?.access ?? 'open'}
        onChange={(access) => onRest({ access: access as Rest['access'] })}
      />
    </div>
  );
}
