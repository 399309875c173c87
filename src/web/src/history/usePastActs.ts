import { t } from '@lingui/core/macro';
import { properties, sentenceOf } from '../core/runtime';
import type { Notebook } from '../data/useNotebook';
import { useWorkspace } from '../data/useWorkspace';
import type { NotebookEntry } from '../model/items';
import { dateWords } from '../model/time';
import type { LongWorker } from '../sheet/blotter/longWork';
import type { OpenDocument } from '../sync/openDocument';
import { say } from '../ui/saying';
import { backWords, leftWords } from './pastWords';

interface PastShown {
  document: OpenDocument;
  notebook: Notebook;
  page: NotebookEntry;
  worker: LongWorker;
  /** The moment that is shown, UTC milliseconds. */
  time: number;
  /** What came back to the page. */
  onBack: (items: string[]) => void;
  /** A page was made of it. */
  onPage: (page: string) => void;
}

const tell = (problem: unknown) => say(sentenceOf(problem));

/** What is done with a page as it was: having it back, all or some of it, and making a page of its own of it. */
export function usePastActs({ document, notebook, page, worker, time, onBack, onPage }: PastShown) {
  const workspace = useWorkspace();
  const { HistoryBridge, HandBridge } = workspace.core;

  const haveBack = async (items: string[]) => {
    if (worker.busy()) return;
    const { handle } = document;
    const [all = 0, things = 0, left = 0] = HistoryBridge.BeginHaveBack(handle, items);
    if (things === 0) return say([t`All of it stands on the page.`, leftWords(left)].filter(Boolean).join(' '));
    const done = await worker.run(
      t`Having it back`,
      all,
      (most) => document.performAll((to, now) => HandBridge.LayMore(to, most, now)),
      true,
    );
    if (!done) {
      await worker.runBegun(t`Taking it away again`, HandBridge.GiveUpLaying(handle));
      return;
    }
    onBack(HandBridge.LastLaid(handle));
    say([backWords(things), leftWords(left)].filter(Boolean).join(' '));
  };
  const copy = async () => {
    const day = dateWords(new Date(time));
    const made = notebook.addPage(page.parent, page.id, page.paper);
    notebook.set(made, properties.name, page.title ? t`${page.title}, as on ${day}` : t`As on ${day}`);
    const onto = await workspace.acquire(document.space, 'page', made);
    try {
      onto.performTogether((to, now) => HistoryBridge.Copy(document.handle, to, now));
    } finally {
      workspace.release(document.space, 'page', made);
    }
    onPage(made);
  };

  return {
    /** Has things back; all where none is named. */
    haveBack: (items: string[]) => void haveBack(items).catch(tell),
    copy: () => void copy().catch(tell),
  };
}
