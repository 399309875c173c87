import type { Core } from '../core/runtime';
import { defaultPaper, nodeKinds, root } from '../model/items';
import { firstTray, penNumbers } from '../model/pens';
import { allKinds } from '../sheet/hand/things';
import { fields } from '../sheet/selection/useSelection';

/** What is rehearsed, each part on its own. */
export const rehearsals = (core: Core): (() => void)[] =>
  [makeNotebook, makeInLibrary, writeOnPage].map((part) => () => rehearse(core, part));

function rehearse(core: Core, part: (core: Core) => void): void {
  core.DocumentBridge.Rehearse(true);
  try {
    part(core);
  } finally {
    core.DocumentBridge.Rehearse(false);
  }
}

function makeNotebook({ DocumentBridge, NotebookBridge }: Core): void {
  const notebook = DocumentBridge.Open(2);
  const [first, second] = [crypto.randomUUID(), crypto.randomUUID()];
  NotebookBridge.Make(notebook, first, nodeKinds.page, root, '', '', defaultPaper, 1);
  NotebookBridge.TakeOutline(notebook, 0);
  NotebookBridge.Make(notebook, second, nodeKinds.page, root, first, '', defaultPaper, 2);
  NotebookBridge.TakeOutline(notebook, 1);
  DocumentBridge.Close(notebook);
}

function makeInLibrary({ DocumentBridge, LibraryBridge }: Core): void {
  const library = DocumentBridge.Open(1);
  const notebook = crypto.randomUUID();
  LibraryBridge.Make(library, notebook, nodeKinds.notebook, root, 'N', [], [], 1);
  LibraryBridge.TakeChanges(library, false);
  LibraryBridge.Visit(library, root, notebook, 2);
  DocumentBridge.Close(library);
}

function writeOnPage({ DocumentBridge, PageBridge, PenBridge, HandBridge }: Core): void {
  const page = DocumentBridge.Open(3);
  const surface = PageBridge.OpenSurface(page, false);
  const stroke = PenBridge.Begin(penNumbers(firstTray[0]!), 0);
  PenBridge.Add(
    stroke,
    Int32Array.of(1_000, 1_000, 500, 0, 0, 0, 1_200, 1_100, 600, 8, 0, 0, 1_500, 1_000, 500, 16, 0, 0),
  );
  PenBridge.End(stroke);
  PenBridge.Keep(stroke, page, '', 1, 1);
  PageBridge.TakeChanged(page, surface, 1);
  const all = HandBridge.Keep(page, HandBridge.SelectAll(page, allKinds, ''));
  HandBridge.SetKept(page, all, [fields.colour], ['1a4f8aff'], 2);
  HandBridge.ShiftKept(page, all, 100, 0, 3);
  PageBridge.TakeChanged(page, surface, 1);
  PageBridge.CloseSurface(page, surface);
  DocumentBridge.Close(page);
}
