// The browser build in Node: its exports, with the tapes that it takes. Used by the benchmark here and by the tests of the browser build.
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join, resolve } from 'node:path';
import { pathToFileURL } from 'node:url';

const root = resolve(import.meta.dirname, '..');
const typescript = createRequire(join(root, 'src/web/package.json'))('typescript');
const source = readFileSync(join(root, 'src/web/src/engine/tape.ts'), 'utf8');
const { outputText } = typescript.transpileModule(source, { compilerOptions: { module: 'ESNext', target: 'ES2022' } });
const { tapeOf } = await import(`data:text/javascript,${encodeURIComponent(outputText)}`);

/** A model as the two arguments that stand for it. */
export const tape = (model) => {
  const { items, text } = tapeOf(model);
  return [items, text];
};

/** What the build in that folder exports. */
export async function load(engine) {
  const { dotnet } = await import(pathToFileURL(join(engine, 'wwwroot/_framework/dotnet.js')));
  return (await (await dotnet.create()).getAssemblyExports('Dibujo.Browser')).Dibujo.Browser;
}
