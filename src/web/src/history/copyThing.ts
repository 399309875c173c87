import { t } from '@lingui/core/macro';
import { sentenceOf } from '../core/runtime';
import type { Library } from '../data/Library';
import { root } from '../model/items';
import { dateWords } from '../model/time';
import { say } from '../ui/saying';

/** A folder or notebook of which a copy is made. */
interface Thing {
  id: string;
  name: string;
  /** The folder that it lies in: its copy goes there too, or to the head of the library where that is gone. */
  parent: string;
}

/** Makes a folder or notebook of its own of one as it was, by the server. */
export function copyThing(
  library: Library,
  { id, name, parent }: Thing,
  at: number,
  then: (made: string) => void,
): void {
  const called = t`${name}, as on ${dateWords(new Date(at))}`;
  const isThere = library.find(parent)?.inBin === false;
  say(t`Making “${called}”…`);
  void library
    .copy(id, { space: library.space, parent: isThere ? parent : root }, false, undefined, { at, name: called })
    .then((made) => say(t`“${called}” is there.`, { words: t`Open it`, do: () => then(made) }))
    .catch((problem: unknown) => say(sentenceOf(problem)));
}
