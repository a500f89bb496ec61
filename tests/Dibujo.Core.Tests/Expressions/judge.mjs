// Evaluates expressions with the independent interpreter feelin: a line of JSON in, a line of JSON out.
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { pathToFileURL } from 'node:url';

const [web, input] = process.argv.slice(2);
const require = createRequire(pathToFileURL(`${web}/package.json`));
const { evaluate } = require('feelin');

function plain(value) {
  if (value === null || value === undefined || (typeof value === 'number' && !Number.isFinite(value))) {
    return null;
  }
  if (Array.isArray(value)) {
    return value.map(plain);
  }
  return typeof value === 'object' ? { [value.constructor.name]: String(value) } : value;
}

for (const line of readFileSync(input, 'utf8').split('\n').filter(Boolean)) {
  const { expression, context } = JSON.parse(line);
  console.log(JSON.stringify(plain(evaluate(expression, context).value)));
}
