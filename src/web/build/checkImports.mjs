// Checks that every folder of src imports only from those before it in folders.mjs.
import { readdirSync, readFileSync } from 'node:fs';
import { folders } from './folders.mjs';
import { wrongImports } from './imports.mjs';

const root = new URL('../src/', import.meta.url);
const files = readdirSync(root, { recursive: true, encoding: 'utf8' }).filter(
  (file) => /\.tsx?$/.test(file) && !file.endsWith('.d.ts'),
);
const problems = wrongImports(folders, new Map(files.map((file) => [file, readFileSync(new URL(file, root), 'utf8')])));
for (const problem of problems) console.error(problem);
process.exit(problems.length > 0 ? 1 : 0);
