import { t } from '@lingui/core/macro';
import { say, takeBack } from '../ui/saying';
import { sentenceOf } from '../core/runtime';
import { Unreachable } from '../server/api';
import type { EntryPlace } from '../data/sections';
import type { Notebook } from '../data/useNotebook';

/** Moves sections and pages, and says it with the way back. Answers with a sentence when they cannot go there. */
export async function movedTo(notebook: Notebook, ids: string[], place: EntryPlace): Promise<string> {
  try {
    const undo = await notebook.moveTo(ids, place);
    say(t`Moved to ${place.words}.`, takeBack(undo));
    return '';
  } catch (problem) {
    return problem instanceof Unreachable
      ? t`Moving into another library needs a connection. Nothing was moved.`
      : sentenceOf(problem);
  }
}
