// Decides cells of tables with the independent interpreter feelin: a line of JSON in, true or false out.
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { pathToFileURL } from 'node:url';

const [web, input] = process.argv.slice(2);
const require = createRequire(pathToFileURL(`${web}/package.json`));
const { unaryTest, date, dateAndTime } = require('feelin');

function revived(value) {
  if (Array.isArray(value)) {
    return value.map(revived);
  }
  if (value === null || typeof value !== 'object') {
    return value;
  }
  return value['@date'] ? date(value['@date'])
    : value['@moment'] ? dateAndTime(value['@moment'])
    : Object.fromEntries(Object.entries(value).map(([key, part]) => [key, revived(part)]));
}

for (const line of readFileSync(input, 'utf8').split('\n').filter(Boolean)) {
  const { cell, context } = JSON.parse(line);
  console.log(unaryTest(cell, revived(context)).value === true);
}
