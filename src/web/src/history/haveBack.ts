import { plural, t } from '@lingui/core/macro';
import type { NotebookEntry } from '../model/items';
import { getJson } from '../server/api';
import { slice } from '../sheet/blotter/longWork';
import { nextTurn } from '../sheet/ink/soon';
import type { OpenDocument } from '../sync/openDocument';
import type { Workspace } from '../sync/workspace';
import { say, takeBack } from '../ui/saying';
import { overAtOnce } from './chart';
import { backWords, leftWords } from './pastWords';

/** What became of a thing since, by Core's numbers. */
export const became = { nothing: 0, came: 1, binned: 2, gone: 3, changed: 4 } as const;

/** How a page stood at a moment, as the server knows it: nothing was done to it since where no time is given. */
export interface PageThen {
  page: string;
  sequence: number;
  until: number | null;
}

export const pagesThen = (space: string, notebook: string, at: number): Promise<PageThen[]> =>
  getJson<PageThen[]>(`/api/spaces/${space}/notebooks/${notebook}/then?at=${at}`);

/** What is had back: things of a library, and notebooks with all or some of what was in them. */
export interface WantedBack {
  space: string;
  isGuest: boolean;
  /** The moment, UTC milliseconds. */
  time: number;
  library?: { document: OpenDocument; ids: string[] };
  notebooks: { id: string; entries?: ReadonlySet<string> }[];
  /** The document whose past stays open, since it is shown. */
  shown: string;
}

/** What came of it. */
interface Done {
  things: number;
  pages: number;
  left: number;
  gone: number;
  /** Pages and notebooks that are not on this device, and could not be fetched. */
  away: number;
}

interface AtWork {
  workspace: Workspace;
  wanted: WantedBack;
  done: Done;
  signal: AbortSignal;
  tell: (share: number) => void;
}

/**
 * Has things back where and how they were, and what was written on their pages, and says what came of it with the way to take it back. What was done until it was
 * given up stays.
 */
export async function haveBackPlaces(
  workspace: Workspace,
  wanted: WantedBack,
  tell: (share: number) => void,
  signal: AbortSignal,
): Promise<void> {
  const done: Done = { things: 0, pages: 0, left: 0, gone: 0, away: 0 };
  const work = { workspace, wanted, done, signal, tell };
  const end = workspace.steps.begin();
  try {
    const { library, notebooks } = wanted;
    if (library) await places(work, library.document, library.ids);
    for (const [i, notebook] of notebooks.entries()) {
      if (signal.aborted) break;
      await ofNotebook(
        { ...work, tell: (share) => tell((i + share) / notebooks.length) },
        notebook.id,
        notebook.entries,
      );
    }
  } finally {
    const noted = end();
    const words = doneWords(done, signal.aborted);
    if (noted.length > 0)
      say(
        words,
        takeBack(() => workspace.takeBack(noted)),
      );
    else say(words);
  }
}

/** Things of a library or notebook, each before what lies in it. */
async function places({ workspace, wanted, done }: AtWork, document: OpenDocument, ids: string[]): Promise<void> {
  const { PlacesBridge } = workspace.core;
  while (PlacesBridge.Move(document.handle, wanted.time, overAtOnce) > 0) await nextTurn();
  const [things = 0, left = 0, gone = 0] = PlacesBridge.PlanBack(document.handle, ids, wanted.isGuest);
  document.performTogether((handle, now) => PlacesBridge.HaveBack(handle, now));
  done.things += things;
  done.left += left;
  done.gone += gone;
}

async function ofNotebook(work: AtWork, id: string, chosen: ReadonlySet<string> | undefined): Promise<void> {
  const { workspace, wanted, signal, tell } = work;
  const { PlacesBridge } = workspace.core;
  const notebook = await workspace.acquire(wanted.space, 'notebook', id);
  let pages: string[];
  try {
    if (!notebook.isHere) {
      work.done.away++;
      return;
    }
    while (PlacesBridge.Move(notebook.handle, wanted.time, overAtOnce) > 0) await nextTurn();
    const then = JSON.parse(PlacesBridge.Outline(notebook.handle)) as NotebookEntry[];
    const entries = chosen ? then.filter((entry) => chosen.has(entry.id)) : then;
    const ids = entries.map((entry) => entry.id);
    const since = PlacesBridge.Differences(notebook.handle, ids);
    await places(work, notebook, ids);
    pages = entries.filter((entry, i) => entry.kind === 'page' && since[i] !== became.gone).map((entry) => entry.id);
  } finally {
    if (wanted.shown !== id) PlacesBridge.Close(notebook.handle);
    workspace.release(wanted.space, 'notebook', id);
  }
  // Of those to which nothing was done since nothing is had back. Without the server each is looked at.
  const known = await pagesThen(wanted.space, id, wanted.time).catch(() => []);
  const same = new Set(known.filter(({ until }) => until === null).map(({ page }) => page));
  const open = pages.filter((page) => !same.has(page));
  for (const [i, page] of open.entries()) {
    if (signal.aborted) return;
    tell(i / open.length);
    await ofPage(work, page);
  }
}

/** What was written on a page, in slices. What was laid of it when that is given up is taken away again. */
async function ofPage({ workspace, wanted, done, signal }: AtWork, id: string): Promise<void> {
  const { HistoryBridge, HandBridge } = workspace.core;
  const page = await workspace.acquire(wanted.space, 'page', id);
  try {
    if (!page.isHere) {
      done.away++;
      return;
    }
    const { handle } = page;
    HistoryBridge.Open(handle);
    while (HistoryBridge.Move(handle, HistoryBridge.CountBy(handle, wanted.time), overAtOnce) > 0) await nextTurn();
    const [all = 0, things = 0, left = 0] = HistoryBridge.BeginHaveBack(handle, []);
    done.left += left;
    if (things === 0) return;
    for (let made = 0; made < all;) {
      if (signal.aborted) {
        HandBridge.GiveUpLaying(handle);
        await page.performAll((to, now) => workspace.core.PageBridge.GoOn(to, made + 1, now));
        return;
      }
      const more = await page.performAll((to, now) => HandBridge.LayMore(to, slice, now));
      // Something else is laid on this page by now.
      if (more === 0) break;
      made += more;
      await nextTurn();
    }
    HandBridge.NoteLaid(handle);
    workspace.steps.note(wanted.space, 'page', id);
    done.things += things;
    done.pages++;
  } finally {
    HistoryBridge.Close(page.handle);
    workspace.release(wanted.space, 'page', id);
  }
}

function doneWords({ things, pages, left, gone, away }: Done, isGivenUp: boolean): string {
  const words = [things === 0 ? t`All of it is there as it was.` : backWords(things)];
  if (pages > 0) words.push(plural(pages, { one: 'It was written on one page.', other: 'It was written on # pages.' }));
  if (isGivenUp) words.push(t`The rest was given up.`);
  if (left > 0) words.push(leftWords(left));
  if (gone > 0)
    words.push(
      plural(gone, {
        one: 'One was erased or moved elsewhere since.',
        other: '# were erased or moved elsewhere since.',
      }),
    );
  if (away > 0)
    words.push(
      plural(away, {
        one: 'One page or notebook is not on this device, or is locked.',
        other: '# pages and notebooks are not on this device, or are locked.',
      }),
    );
  return words.join(' ');
}
