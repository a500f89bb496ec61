import { Textarea } from '@mantine/core';
import { useRef, useState } from 'react';
import type { ClauseExplanation, Problem, Rule } from '../api/generated';
import type { DraftProgram } from '../engine/draftProgram';
import lines from '../sheet/lines.module.css';
import classes from './OpenRule.module.css';
import { Problems } from './Problems';

interface Props {
  rule: Rule;
  sentence: string;
  program: DraftProgram;
  problems: Problem[];
  clauses: ClauseExplanation[];
  onChange: (rule: Rule) => void;
}

/** A rule written as its sentence; what can be read is taken over at once, what cannot is marked with what was expected. */
export function SentenceEditor({ rule, sentence, program, problems, clauses, onChange }: Props) {
  const [typed, setTyped] = useState(sentence);
  const [mistake, setMistake] = useState('');
  const latest = useRef(sentence);

  async function type(text: string) {
    setTyped(text);
    latest.current = text;
    const reading = await program.readSentence(text, rule).catch(() => undefined);
    // What has been typed since counts, not what this was an answer to.
    if (reading && latest.current === text) {
      setMistake(reading.problem?.message ?? '');
      if (reading.rule) {
        onChange(reading.rule);
      }
    }
  }

  return (
    <div className={classes.indented}>
      <Textarea
        aria-label="The rule as a sentence"
        autosize
        minRows={2}
        maxRows={10}
        value={typed}
        error={mistake || undefined}
        onChange={(event) => void type(event.currentTarget.value)}
      />
      <ul className={classes.truths}>
        {clauses.map((clause, i) => (
          <li key={i} className={classes.truth} data-holds={clause.holds}>
            {clause.sentence}: now {clause.present} · {clause.holds ? 'holds' : 'does not hold'}
          </li>
        ))}
      </ul>
      <span className={lines.word}>
        <Problems problems={problems} place="" />
      </span>
    </div>
  );
}
