// The browser build in Node: its exports, and the front end's own way to it. Used by the benchmark here and by the tests of the browser build.
import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { pathToFileURL } from 'node:url';

const root = resolve(import.meta.dirname, '..');
const sources = ['engine', 'pending'].map((room) => join(root, 'src/web/src', room));
const typescript = createRequire(join(root, 'src/web/package.json'))('typescript');
const built = mkdtempSync(join(tmpdir(), 'dibujo-engine-'));
for (const source of sources) {
  for (const name of readdirSync(source).filter((file) => /^[a-zA-Z]+\.ts$/.test(file))) {
    const { outputText } = typescript.transpileModule(readFileSync(join(source, name), 'utf8'), {
      compilerOptions: { module: 'ESNext', target: 'ES2022' },
    });
    // All in one folder, whichever room they are from.
    writeFileSync(join(built, name.replace('.ts', '.mjs')), outputText.replaceAll(/from '[./]+(?:\w+\/)?(\w+)'/g, "from './$1.mjs'"));
  }
}

/** A module of the front end's engine, or of what is pending. */
export const frontEnd = (module) => import(pathToFileURL(join(built, `${module}.mjs`)));

const { tapeOf } = await frontEnd('tape');

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
