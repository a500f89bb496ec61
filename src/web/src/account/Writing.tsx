import { Group, Select, Text, Title } from '@mantine/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState, useSyncExternalStore } from 'react';
import { answered, type Problem } from '../api/client';
import { readNotation, readSignIn, setNotation, type NotationSettings } from '../api/generated';
import { writtenDate } from '../writing/dates';
import { onNotation, ownNotation, writeBy } from '../writing/notation';
import { shown } from '../writing/shown';
import classes from './Account.module.css';

/** What stands for the browser's own way, or the language's. */
const none = '';

const languageNames = typeof Intl.DisplayNames === 'function' ? new Intl.DisplayNames('en', { type: 'language' }) : undefined;

/** How one writes dates and numbers: everything that is shown here is written so, and what one types is read so. */
export function Writing() {
  'use no memo';
  const queries = useQueryClient();
  const choice = useQuery({ queryKey: ['notation'], queryFn: () => answered(readNotation()) }).data;
  const [problem, setProblem] = useState<Problem>();
  // What is shown here is written anew at once.
  useSyncExternalStore(onNotation, ownNotation);

  async function set(change: Partial<NotationSettings>) {
    if (!choice) {
      return;
    }
    setProblem(undefined);
    const own = { ...choice.own, ...change };
    queries.setQueryData(['notation'], { ...choice, own });
    try {
      await answered(setNotation({ body: own }));
      // What is on pages is written anew when they are drawn.
      writeBy((await answered(readSignIn())).notation);
    } catch (failure) {
      setProblem(failure as Problem);
    }
    await queries.invalidateQueries({ queryKey: ['notation'] });
  }

  const all = (values: string[], label: (value: string) => string, first: string) => [
    { value: none, label: first },
    ...values.map((value) => ({ value, label: label(value) })),
  ];
  return (
    <section className={classes.sheet} aria-label="How you write">
      <Title order={2}>How you write dates and numbers</Title>
      <Text size="sm">
        What is shown to you is written so, and what you type is read so. Where it can be read in two ways you are asked.
      </Text>
      {choice && (
        <>
          <Group mt="xs" gap="sm" align="end">
            <Select
              label="Language"
              w={240}
              searchable
              data={all(choice.languages, (tag) => languageNames?.of(tag) ?? tag, 'as the browser asks for')}
              value={choice.own.language ?? none}
              onChange={(language) => void set({ language: language || null })}
            />
            <Select
              label="Days"
              w={190}
              data={all(choice.days, sampleOf, 'as the language has them')}
              value={choice.own.day ?? none}
              onChange={(day) => void set({ day: day || null })}
            />
            <Select
              label="Numbers"
              w={190}
              data={all(choice.numbers, (sample) => sample, 'as the language has them')}
              value={choice.own.numbers ?? none}
              onChange={(numbers) => void set({ numbers: numbers || null })}
            />
          </Group>
          <Text size="sm" mt="xs" role="status" data-sample>
            So you write: {writtenDate('2027-03-31T14:30')} · {shown({ kind: 'money', currency: 'EUR' }, 1234.5)}
          </Text>
        </>
      )}
      {problem && (
        <Text size="sm" role="alert" className={classes.problem}>
          {problem.title} {problem.detail}
        </Text>
      )}
    </section>
  );
}

/** 31 March 2027 by that pattern; the month in English, whatever the language. */
const sampleOf = (pattern: string) =>
  pattern.replace(
    /yyyy|MMM|MM|M|dd|d/g,
    (part) => ({ yyyy: '2027', MMM: 'Mar', MM: '03', M: '3', dd: '31', d: '31' })[part] ?? part,
  );
