// The browser build, run by Node: one change beside a full evaluation, printed as a table. See bench/run.
import { readFileSync } from 'node:fs';
import { load, tape } from './engine.mjs';

const { Programs, Sessions } = await load(process.env.DIBUJO_ENGINE ?? 'artifacts/engine');
const median = (times) => times.toSorted((a, b) => a - b)[Math.floor(times.length / 2)];
const timed = (action) => {
  const start = performance.now();
  action();
  return performance.now() - start;
};

console.log('| rules | one change, median | 95 % below | full evaluation, median | ratio | read and compile an edition | after an edit | after a renaming |');
console.log('| ---: | ---: | ---: | ---: | ---: | ---: | ---: | ---: |');
for (const file of process.argv.slice(2)) {
  const { definition, values, setting } = JSON.parse(readFileSync(file, 'utf8'));
  const { rules } = definition;
  const model = tape(definition);
  const record = tape({ values, setting });
  Programs.Close(Programs.Publish(...model));
  let program;
  const compile = timed(() => (program = Programs.Publish(...model)));
  const draft = Programs.Draft(...model);
  let next = rules.length;
  const edit = (place, rule) => {
    const list = tape(rules.map((_, i) => (i === place ? rule : i)));
    const time = timed(() => {
      Programs.Edit(draft, ...list);
      Programs.Problems(draft);
    });
    next++;
    return time;
  };
  // Each edit brings what another rule says, so that clauses come and go.
  const edits = Array.from({ length: 15 }, (_, i) => edit(i * 3, { ...rules[rules.length - 1 - i], key: rules[i * 3].key }));
  const renamings = Array.from({ length: 15 }, (_, i) => edit(i * 3, { ...rules[i * 3], name: 'Edited' }));
  const full = Array.from({ length: 15 }, () => timed(() => Sessions.Close(Sessions.Open(program, ...record))));
  const session = Sessions.Open(program, ...record);
  Sessions.All(session);
  const fields = definition.recordType.fields;
  const other = { yesNo: [true, false], number: [10, 90], choice: ['f1', 'f3'], text: ['text 7', 'text 31'] };
  const changes = [];
  for (let i = 0; i < 1800; i++) {
    const field = i % fields.length;
    const value = tape(other[fields[field].type.kind][Math.floor(i / fields.length) % 2]);
    changes.push(timed(() => Sessions.Change(session, field, ...value, false)));
  }
  const steady = changes.slice(600);
  const [one, all] = [median(steady), median(full)];
  const high = steady.toSorted((a, b) => a - b)[Math.floor(steady.length * 0.95)];
  console.log(
    `| ${rules.length} | ${one.toFixed(3)} ms | ${high.toFixed(3)} ms | ${all.toFixed(1)} ms | ${(all / one).toFixed(0)} × | ${compile.toFixed(0)} ms | ${median(edits).toFixed(0)} ms | ${median(renamings).toFixed(0)} ms |`,
  );
}
