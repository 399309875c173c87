import type { FoundWords } from '../core/findBridge';
import type { Workspace } from '../sync/workspace';

/** Words to be found among what is typed. */
export interface Sought {
  words: string;
  /** Whether capitals and accents count. */
  exact: boolean;
}

/** What was done on one page of a notebook. */
export interface OnePage {
  page: string;
  /** In how many places the words stand, or stood. */
  places: number;
}

/** Finds words page by page, so that however long a notebook is one of its pages is held at a time; a page that cannot be had now is passed over. */
export async function* findInNotebook(
  workspace: Workspace,
  space: string,
  pages: readonly string[],
  sought: Sought,
  signal: AbortSignal,
): AsyncGenerator<OnePage> {
  for (const page of pages) {
    if (signal.aborted) return;
    const places = await onPage(workspace, space, page, (handle) => placesOn(workspace, handle, sought));
    if (places !== undefined) yield { page, places };
  }
}

/** Puts other words in their place page by page, each as one step of that page. */
export async function* replaceInNotebook(
  workspace: Workspace,
  space: string,
  pages: readonly string[],
  sought: Sought,
  words: string,
  signal: AbortSignal,
): AsyncGenerator<OnePage> {
  for (const page of pages) {
    if (signal.aborted) return;
    const places = await onPage(workspace, space, page, (handle, document) => {
      const before = placesOn(workspace, handle, sought);
      if (before === 0) return 0;
      document.performTogether((at, now) =>
        workspace.core.FindBridge.Replace(at, sought.words, sought.exact, words, -1, now),
      );
      // What may not be changed stays as it is.
      return before - placesOn(workspace, document.handle, sought);
    });
    if (places !== undefined) yield { page, places };
  }
}

function placesOn(workspace: Workspace, handle: number, { words, exact }: Sought): number {
  return (JSON.parse(workspace.core.FindBridge.Find(handle, words, exact)) as FoundWords[]).length;
}

type Held = Awaited<ReturnType<Workspace['acquire']>>;

async function onPage(
  workspace: Workspace,
  space: string,
  page: string,
  then: (handle: number, document: Held) => number,
): Promise<number | undefined> {
  const document = await workspace.acquire(space, 'page', page).catch(() => undefined);
  if (!document) return undefined;
  try {
    return then(document.handle, document);
  } finally {
    workspace.release(space, 'page', page);
  }
}
