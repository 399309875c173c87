// The catalogues in src/words hold what the code says, neither less nor more, and every language says all of it. `npm run words` brings them up to date.
import { execFileSync } from 'node:child_process';
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';

const web = new URL('..', import.meta.url).pathname;
const files = readdirSync(`${web}src/words`).filter((name) => name.endsWith('.po'));
const read = () => new Map(files.map((name) => [name, readFileSync(`${web}src/words/${name}`, 'utf8')]));
// The day on which a catalogue was made, and where its words stand, say nothing of what it holds.
const timeless = (text) => text.replace(/^"POT-Creation-Date:.*\n/m, '').replace(/^#: .*\n/gm, '');

const kept = read();
const problems = [];
try {
  execFileSync('npx', ['lingui', 'extract', '--clean'], { cwd: web, stdio: 'pipe' });
  for (const [name, text] of read()) {
    if (timeless(text) !== timeless(kept.get(name)))
      problems.push(
        `src/words/${name} does not hold what the code says. Run "npm run words" and translate what is new.`,
      );
  }
  for (const [name, text] of kept) {
    const missing = [...text.matchAll(/^msgid (".*"(?:\n".*")*)\nmsgstr ""(?!\n")/gm)]
      .map(([, id]) => id)
      .filter((id) => id !== '""');
    for (const id of missing) problems.push(`src/words/${name} has no words yet for ${id}.`);
  }
} finally {
  for (const [name, text] of kept) writeFileSync(`${web}src/words/${name}`, text);
}
for (const problem of problems) console.error(problem);
process.exit(problems.length > 0 ? 1 : 0);
