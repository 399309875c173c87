import { type RefObject, useEffect, useRef, useState } from 'react';
import { useLibrary } from '../../data/useLibrary';
import { drawPaper } from '../../model/drawing';
import type { OpenDocument } from '../../sync/openDocument';
import { useWorkspace } from '../../data/useWorkspace';
import { SheetDesk, type Under } from './desk';
import type { PenSign } from '../ink/othersInk';
import type { View } from '../ink/view';
import type { NextPages } from '../ink/neighbours';
import type { Notebook } from '../../data/useNotebook';
import type { NotebookEntry } from '../../model/items';
import type { Space } from '../../server/session';

const trayRoom = 116;
const sideRoom = 84;

/** The page that is laid on the desk, and what surrounds it. */
interface Laid {
  space: Space;
  notebook: Notebook;
  page: NotebookEntry;
  document: OpenDocument;
  /** Whether the tray takes room beside it. */
  tray: boolean;
  next: NextPages;
  startView: View | undefined;
  onPresent: (people: string[]) => void;
}

/** Lays a page on the desk as long as it is shown. */
export function useSheetDesk(
  holder: RefObject<HTMLDivElement | null>,
  leftHanded: boolean,
  { space, notebook, page, tray, next, startView, onPresent, document }: Laid,
): { desk: SheetDesk | undefined; view: View; signs: PenSign[]; under: Under } {
  const { core, live } = useWorkspace();
  const library = useLibrary(space.id);
  const mayWrite = space.role !== 'reader';
  const [desk, setDesk] = useState<SheetDesk>();
  const [view, setView] = useState<View>({ scale: 0, x: 0, y: 0 });
  const [signs, setSigns] = useState<PenSign[]>([]);
  const first = useRef(startView);
  const laid = useRef<SheetDesk>(undefined);
  const own = drawPaper(core, page.paper).own;
  const asset = own ? library?.find(own)?.source : undefined;
  const { paper } = page;
  const under: Under = { paper, space: space.id, notebook: { handle: notebook.handle, id: notebook.id }, asset };

  const trayWide = mayWrite && tray ? trayRoom : 0;
  const room = leftHanded ? { left: sideRoom, right: trayWide } : { left: trayWide, right: sideRoom };
  const latest = useRef({ under, room, next });
  latest.current = { under, room, next };

  useEffect(() => {
    const { under, room, next } = latest.current;
    const made = new SheetDesk(holder.current!, core, document, live, under, mayWrite, room, next, first.current);
    made.onView = (to) => {
      // Where the hand has put it is where it lies when it is laid down anew.
      first.current = to;
      setView(to);
    };
    made.others.onSigns = setSigns;
    document.onPresent = onPresent;
    setView(made.currentView);
    setDesk(made);
    laid.current = made;
    return () => {
      document.onPresent = undefined;
      made.stop();
    };
  }, [core, document, live, mayWrite, onPresent, notebook.id]);

  // What others do to the notebook, and what is opened beside the sheet, changes about it what it must and leaves the hand at its work.
  useOnChange(() => laid.current?.setUnder(latest.current.under), [paper, asset]);
  useOnChange(() => laid.current?.setRoom(latest.current.room), [trayWide, leftHanded]);
  useOnChange(() => laid.current?.setNext(latest.current.next), [next.turning, next.before?.id, next.after?.id]);

  // A planner's dates and calendar are part of the notebook.
  useEffect(() => {
    if (page.planner) desk?.redraw();
  }, [desk, notebook.version, page.planner]);

  return { desk, view, signs, under };
}

/** Does something whenever one of these is another than before; not the first time. */
function useOnChange(change: () => void, of: unknown[]): void {
  const isFirst = useRef(true);
  useEffect(() => {
    if (isFirst.current) isFirst.current = false;
    else change();
  }, of);
}
