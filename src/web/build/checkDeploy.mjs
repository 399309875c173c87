// Checks deploy/: the Dockerfile by a linter, the compose file by reading it, and that every setting it names stands in docs/operating.md.
import { readFileSync } from 'node:fs';
import { validate } from 'dockerfile-utils';
import { parse } from 'yaml';

const read = (path) => readFileSync(new URL(`../../../${path}`, import.meta.url), 'utf8');
const problems = validate(read('deploy/Dockerfile')).map(
  (one) => `deploy/Dockerfile:${one.range.start.line + 1}: ${one.message}`,
);

const compose = parse(read('deploy/compose.yaml'), { merge: true });
const documented = read('docs/operating.md');
for (const [name, service] of Object.entries(compose.services)) {
  if (!service.image) problems.push(`deploy/compose.yaml: ${name} names no image`);
  for (const needed of Object.keys(service.depends_on ?? {}))
    if (!compose.services[needed]) problems.push(`deploy/compose.yaml: ${name} needs ${needed}, which there is not`);
  for (const volume of service.volumes ?? []) {
    const [from] = volume.split(':');
    if (!from.startsWith('.') && !(from in compose.volumes))
      problems.push(`deploy/compose.yaml: ${name} mounts ${from}, which there is not`);
  }
  if (name === 'database') continue;
  for (const setting of Object.keys(service.environment ?? {}))
    if (!documented.includes(`\`${setting}\``))
      problems.push(`deploy/compose.yaml: ${setting} is not in docs/operating.md`);
}

for (const problem of problems) console.error(problem);
process.exit(problems.length > 0 ? 1 : 0);
