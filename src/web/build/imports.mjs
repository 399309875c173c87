// What imports what, read with the parser that builds the application.
import { posix } from 'node:path';
import { parseSync } from 'vite';

/**
 * The imports that lead from a folder to itself or one before it in no way.
 * @param {readonly string[]} folders The folders in their order; each may import from those before it. One that ends in `/*` stands for all that lie directly in it, which may not import from each other.
 * @param {ReadonlyMap<string, string>} sources The text of every file by its path, with `/` between the parts.
 * @returns {string[]} A sentence for every import that is wrong, and for every folder that has no place in the order.
 */
export function wrongImports(folders, sources) {
  const places = new Map(folders.map((folder, index) => [folder, index]));
  const rank = {
    get: (folder) => places.get(folder) ?? places.get(`${posix.dirname(folder)}/*`),
    has: (folder) => rank.get(folder) !== undefined,
  };
  const problems = [];
  for (const [file, text] of sources) {
    const from = folderOf(file);
    if (!rank.has(from)) problems.push(`${file}: the folder “${from}” has no place in build/folders.mjs`);
    for (const asked of importsOf(file, text)) {
      const to = folderOf(posix.join(posix.dirname(file), asked));
      if (to !== from && !(rank.get(to) < rank.get(from)))
        problems.push(`${file}: imports ${asked}, but “${to}” comes after “${from}” in build/folders.mjs`);
    }
  }
  return problems;
}

function importsOf(file, text) {
  const { module } = parseSync(file, text);
  const dynamic = module.dynamicImports.map(({ moduleRequest: { start, end } }) => text.slice(start + 1, end - 1));
  const exported = module.staticExports.flatMap(({ entries }) => entries.map((entry) => entry.moduleRequest?.value));
  return [...module.staticImports.map((one) => one.moduleRequest.value), ...exported, ...dynamic].filter((one) =>
    one?.startsWith('.'),
  );
}

function folderOf(file) {
  const folder = posix.dirname(file);
  return folder === '.' ? '' : folder;
}
