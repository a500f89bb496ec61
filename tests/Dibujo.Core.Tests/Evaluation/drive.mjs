// Drives sessions through the browser build: a line of JSON in, a line of JSON with every state out.
import { readFileSync } from 'node:fs';
import { load, tape } from '../../../bench/engine.mjs';

const [engine, input] = process.argv.slice(2);
const { KnownRecords, Programs, Sessions } = await load(engine);

for (const line of readFileSync(input, 'utf8').split('\n').filter(Boolean)) {
  const { definition, values, setting, linked, steps } = JSON.parse(line);
  KnownRecords.Know(...tape(linked.map((record, number) => ({ recordType: 'other', number, values: record }))));
  // Half of the rules first, and the others while the record is open, as if they were being written.
  const { rules } = definition;
  const half = Math.floor(rules.length / 2);
  const program = Programs.Draft(...tape({ ...definition, rules: rules.slice(0, half) }));
  const session = Sessions.Open(program, ...tape({ values, setting }));
  const states = [];
  const held = [];
  const follow = (answer) => {
    const { elements, values: told } = JSON.parse(answer);
    for (let at = 0; at < elements.length; at += 2) states[elements[at]] = elements[at + 1];
    for (let at = 0; at < told.length; at += 2) held[told[at]] = told[at + 1];
  };
  follow(Sessions.All(session));
  Programs.Edit(program, ...tape(rules.map((rule, i) => (i < half ? i : rule))));
  follow(Sessions.Rebase(session, program));
  const seen = [[...states, ...held]];
  for (const step of steps) {
    follow(step.setting ? Sessions.Enter(session, ...tape(step.setting)) : Sessions.Change(session, step.field, ...tape(step.value)));
    seen.push([...states, ...held]);
  }
  console.log(JSON.stringify(seen));
  Sessions.Close(session);
  Programs.Close(program);
}
