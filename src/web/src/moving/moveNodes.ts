import { plural, t } from '@lingui/core/macro';
import { say, takeBack } from '../ui/saying';
import { doing } from '../data/doing';
import { sentenceOf } from '../core/runtime';
import { Unreachable } from '../server/api';
import type { Workspace } from '../sync/workspace';
import type { Library } from '../data/Library';
import { root } from '../model/items';

/**
 * Moves folders and notebooks into a folder, and says so with the way back. Into another library they go as copies, and the originals go into the bin. Answers with
 * a sentence when they cannot go there.
 */
export async function moveNodes(
  workspace: Workspace,
  libraries: Map<string, Library>,
  from: { space: string; ids: string[]; words: string },
  to: { space: string; folder: string },
): Promise<string> {
  const library = libraries.get(from.space)!;
  const where =
    to.folder === root ? t`the head of the library` : (libraries.get(to.space)?.find(to.folder)?.name ?? '');
  if (to.space === from.space) {
    try {
      await doing(workspace, t`Moved ${from.words} to ${where}.`, () => {
        for (const id of from.ids) library.move(id, to.folder);
      });
      return '';
    } catch (problem) {
      return sentenceOf(problem);
    }
  }
  const copies: string[] = [];
  try {
    for (const id of from.ids) copies.push(await library.copy(id, { space: to.space, parent: to.folder }, true));
  } catch (problem) {
    return problem instanceof Unreachable
      ? t`Moving into another library needs a connection. Nothing was moved.`
      : sentenceOf(problem);
  }
  say(
    plural(from.ids.length, {
      one: `Moved ${from.words} to ${where}. The original is in the bin of the old library.`,
      other: `Moved ${from.words} to ${where}. The originals are in the bin of the old library.`,
    }),
    takeBack(() => {
      for (const id of from.ids) library.putBack(id);
      for (const copy of copies) libraries.get(to.space)!.toBin(copy);
    }),
  );
  return '';
}
