import { Textarea } from '@mantine/core';
import { useState } from 'react';
import type { ClauseExplanation, Problem, Rule } from '../api/generated';
import type { CompiledDefinition } from '../engine/compiledDefinition';
import lines from '../sheet/lines.module.css';
import classes from './OpenRule.module.css';
import { Problems } from './Problems';

interface Props {
  rule: Rule;
  sentence: string;
  compiled: CompiledDefinition;
  problems: Problem[];
  clauses: ClauseExplanation[];
  onChange: (rule: Rule) => void;
}

/** A rule written as its sentence; what can be read is taken over at once, what cannot is marked with what was expected. */
export function SentenceEditor({ rule, sentence, compiled, problems, clauses, onChange }: Props) {
  const [typed, setTyped] = useState(sentence);
  const [mistake, setMistake] = useState('');

  function type(text: string) {
    setTyped(text);
    const { rule: read, problem } = compiled.readSentence(text, rule);
    setMistake(problem?.message ?? '');
    if (read) {
      onChange(read);
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
        onChange={(event) => type(event.currentTarget.value)}
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
