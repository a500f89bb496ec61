import { ActionIcon, Popover } from '@mantine/core';
import { IconCalendar } from '@tabler/icons-react';
import { lazy, Suspense, useState } from 'react';
import { writtenDate } from '../writing/dates';
import { TypedInput, type TypedProps } from './TypedInput';

// Few days are picked, and a calendar is large.
const Calendar = lazy(async () => ({ default: (await import('./Calendar')).Calendar }));

interface Props extends TypedProps {
  hasTime: boolean;
}

/** A day, or a moment, by the site's clock: typed in any usual way, or picked (Alt with the arrow down opens the calendar). */
export function DateInput({ hasTime, ...shared }: Props) {
  const { value, onDone, readOnly } = shared;
  const [isOpen, setOpen] = useState(false);
  const button = (
    <ActionIcon variant="subtle" size={24} aria-label="Pick from a calendar" onClick={() => setOpen(!isOpen)}>
      <IconCalendar size={15} />
    </ActionIcon>
  );
  return (
    <TypedInput
      {...shared}
      write={(held) => (typeof held === 'string' ? writtenDate(held) : '')}
      onKeyDown={(event) => {
        if (event.altKey && event.key === 'ArrowDown') {
          event.preventDefault();
          setOpen(!readOnly);
        }
      }}
      rightSection={
        readOnly ? undefined : !isOpen ? (
          // A popover for each field would be much of what a form costs.
          button
        ) : (
          <Popover opened onChange={setOpen} position="bottom-end" trapFocus returnFocus>
            <Popover.Target>{button}</Popover.Target>
            <Popover.Dropdown>
              <Suspense fallback={null}>
                <Calendar
                  value={typeof value === 'string' ? value : null}
                  hasTime={hasTime}
                  onPick={(next) => {
                    onDone(next);
                    setOpen(false);
                  }}
                />
              </Suspense>
            </Popover.Dropdown>
          </Popover>
        )
      }
    />
  );
}
