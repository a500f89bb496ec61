// Compresses what the server serves for good, once, at build time.
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { brotliCompressSync } from 'node:zlib';

const folder = process.argv[2];
for (const name of readdirSync(folder).filter((file) => /\.(js|css)$/.test(file))) {
  writeFileSync(join(folder, `${name}.br`), brotliCompressSync(readFileSync(join(folder, name))));
}
