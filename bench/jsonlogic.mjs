// The same conditions decided by json-logic-js, for Beside.cs: microseconds for a record, and how many rules hold.
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { pathToFileURL } from 'node:url';
import { resolve } from 'node:path';

const require = createRequire(pathToFileURL(resolve('src/web/package.json')));
const logic = require('json-logic-js');
const { rules, records } = JSON.parse(readFileSync(process.argv[2], 'utf8'));
let best = Infinity;
let hits = 0;
for (let attempt = 0; attempt < 40; attempt++) {
  const start = performance.now();
  hits = 0;
  for (const record of records) {
    for (const rule of rules) {
      if (logic.apply(rule, record)) {
        hits++;
      }
    }
  }
  best = Math.min(best, ((performance.now() - start) * 1000) / records.length);
}
console.log(JSON.stringify({ microseconds: best, hits }));
