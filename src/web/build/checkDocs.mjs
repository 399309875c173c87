// Checks that every file of the front end which docs/architecture.md names is there.
import { existsSync, readFileSync } from 'node:fs';

const text = readFileSync(new URL('../../../docs/architecture.md', import.meta.url), 'utf8');
const named = [...text.matchAll(/`(?:web\/src\/)?([a-z]+\/[\w/]+\.tsx?)`/g)].map(([, file]) => file);
const missing = [...new Set(named)].filter((file) => !existsSync(new URL(`../src/${file}`, import.meta.url)));
for (const file of missing) console.error(`docs/architecture.md: names ${file}, which there is not`);
if (named.length === 0) console.error('docs/architecture.md: names no file of the front end');
process.exit(missing.length > 0 || named.length === 0 ? 1 : 0);
