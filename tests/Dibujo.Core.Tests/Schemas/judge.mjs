// Validates records against schemas with ajv: a line of JSON in, the fields that it finds missing out.
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { pathToFileURL } from 'node:url';

const [web, input] = process.argv.slice(2);
const require = createRequire(pathToFileURL(`${web}/package.json`));
const Ajv = require('ajv/dist/2020').default;
const addFormats = require('ajv-formats').default;

for (const line of readFileSync(input, 'utf8').split('\n').filter(Boolean)) {
  const { schema, records } = JSON.parse(line);
  const ajv = addFormats(new Ajv({ allErrors: true, strict: false }));
  const validate = ajv.compile(schema);
  const found = records.map((record) => {
    validate(record);
    const wrong = (validate.errors ?? []).filter((e) => e.keyword !== 'if');
    return [...new Set(wrong.map((e) => e.instancePath.split('/')[1] ?? e.params.missingProperty ?? `? ${e.message}`))].sort();
  });
  console.log(JSON.stringify(found));
}
