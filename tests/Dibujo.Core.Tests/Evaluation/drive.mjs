// Drives sessions through the browser build: a line of JSON in, a line of JSON with every state out.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';

const [engine, input] = process.argv.slice(2);
const { dotnet } = await import(pathToFileURL(join(engine, 'wwwroot/_framework/dotnet.js')));
const runtime = await dotnet.create();
const utf8 = (model) => new TextEncoder().encode(JSON.stringify(model));
const { KnownRecords, Programs, Sessions } = (await runtime.getAssemblyExports('Dibujo.Browser')).Dibujo.Browser;

for (const line of readFileSync(input, 'utf8').split('\n').filter(Boolean)) {
  const { definition, values, setting, linked, steps } = JSON.parse(line);
  linked.forEach((record, i) => KnownRecords.Know('other', i, JSON.stringify(record)));
  // Half of the rules first and then all of them, as if the others had been written just now.
  const half = Math.floor(definition.rules.length / 2);
  const begun = Programs.Compile(utf8({ ...definition, rules: definition.rules.slice(0, half) }));
  const program = Programs.Recompile(begun, utf8(definition.rules.map((rule, i) => (i < half ? i : rule))));
  Programs.Close(begun);
  const session = Sessions.Open(program, JSON.stringify(values), JSON.stringify(setting));
  const states = [];
  const held = [];
  const follow = (delta) => {
    let at = 0;
    for (let left = delta[at++]; left > 0; left--, at += 2) states[delta[at]] = delta[at + 1];
    for (let left = delta[at++]; left > 0; left--, at++) held[delta[at]] = JSON.parse(Sessions.ValueOf(session, delta[at]));
  };
  follow(Sessions.All(session));
  const seen = [[...states, ...held]];
  for (const step of steps) {
    follow(step.setting ? Sessions.Enter(session, JSON.stringify(step.setting)) : Sessions.Change(session, step.field, JSON.stringify(step.value)));
    seen.push([...states, ...held]);
  }
  console.log(JSON.stringify(seen));
  Sessions.Close(session);
  Programs.Close(program);
}
