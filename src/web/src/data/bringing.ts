import { t } from '@lingui/core/macro';
import { unframed } from '../sync/frames';
import { addressOf } from '../sync/address';
import type { Waiting } from '../sync/deviceStore';
import { OpenDocument } from '../sync/openDocument';
import type { Workspace } from '../sync/workspace';
import { openPath, root } from '../model/items';
import { Cancelled } from '../server/api';
import type { Library, NotebookLook } from './Library';

/** Files that somebody let go of or chose somewhere, for the screen that brings them in. */
let waiting: File[] = [];

export function offer(files: readonly File[]): void {
  waiting = [...files];
}

/** What was offered; once. */
export function takeOffered(): File[] {
  const taken = waiting;
  waiting = [];
  return taken;
}

/** Where the pages go: into a new notebook, or behind a page of one that is there. */
export type Goal =
  | { library: Library; folder: string; name: string; look: NotebookLook }
  | { space: string; notebook: string; parent: string; after: string };

/** How far it has come. */
export interface Told {
  done: number;
  of: number;
}

/** So many pages are made before the screen is painted again. */
const atOnce = 20;

/**
 * Makes pages of the sheets that Core laid last, all in one step or none; where the first of them is.
 * @param goal Where they go.
 * @param tell Told how far it is.
 * @param signal Gives up; nothing is made then.
 */
export async function makePages(
  workspace: Workspace,
  goal: Goal,
  tell: (told: Told) => void,
  signal: AbortSignal,
): Promise<string> {
  const { BringBridge } = workspace.core;
  const isNew = 'library' in goal;
  const notebook = isNew ? crypto.randomUUID() : goal.notebook;
  const space = isNew ? goal.library.space : goal.space;
  const [parent, after] = isNew ? [root, ''] : [goal.parent, goal.after];
  const seed = crypto.randomUUID();
  if (isNew) workspace.made(notebook);
  const inside = await workspace.acquire(space, 'notebook', notebook);
  try {
    if (!isNew && !inside.isHere) throw new Error(t`The notebook is not on this device yet. Nothing was made.`);
    const pages = BringBridge.Pages(inside.handle, parent, after, seed);
    const ink: Waiting[] = [];
    for (const [i, page] of pages.entries()) {
      if (i % atOnce === 0) {
        tell({ done: i, of: pages.length });
        await new Promise((painted) => setTimeout(painted));
        if (signal.aborted) throw new Cancelled();
      }
      const document = addressOf(space, 'page', page);
      for (const bytes of unframed(BringBridge.Laid(i, Date.now()))) ink.push({ space, kind: 'page', document, bytes });
    }
    await workspace.store.keepEmpty(...pages.map((page) => addressOf(space, 'page', page)));
    const into = (handle: number, now: number) => BringBridge.Into(handle, parent, after, seed, now);
    if (isNew) goal.library.addFilled(notebook, goal.folder, goal.name, goal.look, [inside, into], ink);
    else OpenDocument.performAcross([[inside, into]], ink);
    return openPath(space, notebook, pages[0]);
  } finally {
    workspace.release(space, 'notebook', notebook);
  }
}
