// What this build is called: Core lies in a folder named after what it holds, so that no script is ever served with another build's Core.
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';

export const corePublished = new URL(
  '../../CalmQuill.Core.Browser/bin/Release/net10.0/publish/wwwroot/_framework',
  import.meta.url,
).pathname;
const source = new URL('../src', import.meta.url).pathname;

/** A short hash over all files of a folder and their names. */
function hashOf(folder) {
  const hash = createHash('sha256');
  if (!existsSync(folder)) return 'none';
  const files = readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile() && !entry.name.endsWith('.gz') && !entry.name.endsWith('.br'))
    .map((entry) => join(entry.parentPath, entry.name))
    .sort();
  for (const file of files) hash.update(file.slice(folder.length)).update(readFileSync(file));
  return hash.digest('hex').slice(0, 12);
}

/** Of what reads PDF files; its fonts and maps lie in a folder named after it. */
export const pdfPackage = new URL('../node_modules/pdfjs-dist', import.meta.url).pathname;
export const pdfVersion = JSON.parse(readFileSync(join(pdfPackage, 'package.json'), 'utf8')).version;

const core = hashOf(corePublished);

/** Where Core is served from. */
export const coreFolder = `assets/core-${core}`;

/** The whole front end's name. */
export const build = createHash('sha256').update(core).update(hashOf(source)).digest('hex').slice(0, 12);
