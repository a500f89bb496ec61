// The browser build, run by Node: one change beside a full evaluation, printed as a table. See bench/run.
import { readFileSync } from 'node:fs';
import { pathToFileURL } from 'node:url';
import { resolve } from 'node:path';

const { dotnet } = await import(pathToFileURL(resolve('artifacts/engine/wwwroot/_framework/dotnet.js')));
const { Programs, Sessions } = (await (await dotnet.create()).getAssemblyExports('Dibujo.Browser')).Dibujo.Browser;
const utf8 = (model) => new TextEncoder().encode(JSON.stringify(model));
const median = (times) => times.toSorted((a, b) => a - b)[Math.floor(times.length / 2)];
const timed = (action) => {
  const start = performance.now();
  action();
  return performance.now() - start;
};

console.log('| rules | one change, median | 95 % below | full evaluation, median | ratio | compile | after an edit |');
console.log('| ---: | ---: | ---: | ---: | ---: | ---: | ---: |');
for (const file of process.argv.slice(2)) {
  const { definition, values, setting } = JSON.parse(readFileSync(file, 'utf8'));
  const model = utf8(definition);
  const [record, where] = [values, setting].map((part) => JSON.stringify(part));
  Programs.Close(Programs.Compile(model, ''));
  let program;
  const compile = timed(() => (program = Programs.Compile(model, '')));
  const edited = utf8(definition.rules.map((rule, i) => (i === 7 ? { ...rule, name: 'Edited' } : i)));
  const edit = timed(() => Programs.Close(Programs.Recompile(program, edited)));
  const full = Array.from({ length: 15 }, () => timed(() => Sessions.Close(Sessions.Open(program, record, where))));
  const session = Sessions.Open(program, record, where);
  const fields = definition.recordType.fields;
  const other = { yesNo: [true, false], number: [10, 90], choice: ['f1', 'f3'], text: ['text 7', 'text 31'] };
  const changes = [];
  for (let i = 0; i < 1800; i++) {
    const field = i % fields.length;
    const value = JSON.stringify(other[fields[field].type.kind][Math.floor(i / fields.length) % 2]);
    changes.push(timed(() => Sessions.Change(session, field, value)));
  }
  const steady = changes.slice(600);
  const [one, all] = [median(steady), median(full)];
  const high = steady.toSorted((a, b) => a - b)[Math.floor(steady.length * 0.95)];
  console.log(
    `| ${definition.rules.length} | ${one.toFixed(3)} ms | ${high.toFixed(3)} ms | ${all.toFixed(1)} ms | ${(all / one).toFixed(0)} × | ${compile.toFixed(0)} ms | ${edit.toFixed(0)} ms |`,
  );
}
