// Drives records through the browser build: a line of JSON in, a line of JSON with every state out. Each record is driven twice:
// step by step, and through the front end's own record with changes that come faster than the answers.
import { readFileSync } from 'node:fs';
import { frontEnd, load, tape } from '../../../bench/engine.mjs';

const [folder, input] = process.argv.slice(2);
const exports = await load(folder);
const { KnownRecords, Programs, Sessions } = exports;
const { Engine } = await frontEnd('engine');
const { OpenRecord } = await frontEnd('openRecord');
const { readBits } = await frontEnd('elementState');
const operations = (await frontEnd('operations')).operationsOn(exports);

let random = 1;
const chance = (below) => (random = (random * 48271) % 2147483647) % below;

/** A worker that takes its time: it answers in order, now at once and now after several more questions have come. */
function slowWorker() {
  const asked = [];
  const worker = { onmessage: null, onerror: null, terminate() {}, postMessage: (request) => asked.push(request) };
  worker.go = async () => {
    while (asked.length > 0) {
      const { id, operation, operands } = asked.shift();
      const result = await operations[operation](...operands);
      worker.onmessage({ data: { id, result } });
      if (chance(2) === 0) {
        await new Promise((then) => setTimeout(then));
      }
    }
  };
  return worker;
}

for (const line of readFileSync(input, 'utf8').split('\n').filter(Boolean)) {
  const { definition, values, setting, linked, steps } = JSON.parse(line);
  const others = linked.map((record, number) => ({ recordType: 'other', number, values: record }));
  KnownRecords.Know(...tape(others));
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
  const typed = steps.filter((step) => !step.setting);
  for (const step of typed) {
    follow(Sessions.Change(session, step.field, ...tape(step.value), false));
    seen.push([...states, ...held]);
  }
  const fast = await typedFast(program, definition, values, setting, others, typed);
  for (const step of steps.filter((step) => step.setting)) {
    follow(Sessions.Enter(session, ...tape(step.setting)));
    seen.push([...states, ...held]);
  }
  console.log(JSON.stringify({ seen, fast: fast(seen[typed.length]) }));
  Sessions.Close(session);
  Programs.Close(program);
}

/** Types everything without waiting for answers; what is asked then is what a patient person saw in the end. */
async function typedFast(program, { recordType }, values, setting, linked, steps) {
  const worker = slowWorker();
  const form = setting.form ?? recordType.forms[0].key;
  const given = { recordType: recordType.key, form, forms: [], values, setting, linked, states: [] };
  const record = new OpenRecord(new Engine(() => worker), recordType, given, undefined, false);
  const opening = record.open(() => Promise.resolve(program));
  for (const { field, value } of steps) {
    record.change(recordType.fields[field].key, value);
    if (chance(3) === 0) {
      await Promise.resolve();
      void worker.go();
    }
  }
  for (let round = 0; round < 4; round++) {
    await worker.go();
    await new Promise((then) => setTimeout(then));
  }
  await opening;
  const elements = JSON.parse(Programs.Elements(program, form));
  record.close();
  // What nobody answers would keep the process alive for as long as a page has patience.
  await worker.go();
  return (patient) => {
    const wrong = elements.filter(({ number, kind, key }) => readBits(patient[number]) !== record.state(kind, key)).map(({ key }) => key);
    const count = patient.length - recordType.fields.length;
    recordType.fields.forEach(({ key }, i) => {
      if (JSON.stringify(patient[count + i]) !== JSON.stringify(record.field(key).value)) wrong.push(`value of ${key}`);
    });
    return record.whole().isLive ? wrong : ['not live'];
  };
}
