import '@mantine/dates/styles.css';
import { Button, Group, TextInput } from '@mantine/core';
import { DatePicker } from '@mantine/dates';
import { useState } from 'react';
import classes from './Calendar.module.css';

interface Props {
  /** Text of ISO 8601; whatever else stands in the field counts as nothing. */
  value: string | null;
  hasTime: boolean;
  onPick: (value: string) => void;
}

/** A month to pick a day from, and for moments a time of day. */
export function Calendar({ value, hasTime, onPick }: Props) {
  const [date = '', clock = ''] = /^\d{4}-\d{2}-\d{2}(T\d{2}:\d{2})?/.exec(value ?? '')?.[0].split('T') ?? [];
  const [day, setDay] = useState(date);
  const [time, setTime] = useState(clock);
  return (
    <>
      <DatePicker
        hideOutsideDates
        classNames={{ day: classes.day }}
        ariaLabels={{
          previousMonth: 'Month before',
          nextMonth: 'Month after',
          previousYear: 'Year before',
          nextYear: 'Year after',
          previousDecade: 'Ten years before',
          nextDecade: 'Ten years after',
        }}
        value={day || null}
        defaultDate={day || undefined}
        onChange={(next) => {
          if (next && !hasTime) {
            onPick(next);
          }
          setDay(next ?? '');
        }}
      />
      {hasTime && (
        <Group mt="xs" gap="xs" align="end">
          <TextInput type="time" label="Time" value={time} onChange={(event) => setTime(event.currentTarget.value)} />
          <Button disabled={!day || !time} onClick={() => onPick(`${day}T${time}`)}>
            Take
          </Button>
        </Group>
      )}
    </>
  );
}
