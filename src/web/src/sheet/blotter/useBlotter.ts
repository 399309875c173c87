import { may } from '../../data/rights';
import { type RefObject, useEffect, useRef, useState } from 'react';
import { useLibrary } from '../../data/useLibrary';
import type { Notebook } from '../../data/useNotebook';
import { useWorkspace } from '../../data/useWorkspace';
import { drawPaper } from '../../model/drawing';
import type { NotebookEntry } from '../../model/items';
import type { Space } from '../../server/session';
import type { OpenDocument } from '../../sync/openDocument';
import type { NextPages } from '../ink/neighbours';
import type { Room, View } from '../ink/view';
import { Blotter } from './blotter';
import type { Under } from './ground';

/** The page that is laid on the blotter, and what surrounds it. */
interface Laid {
  space: Space;
  notebook: Notebook;
  page: NotebookEntry;
  document: OpenDocument;
  /** What stands over the blotter at its sides. */
  room: Room;
  next: NextPages;
  startView: View | undefined;
  onPresent: (people: string[]) => void;
}

export interface OnBlotter {
  blotter: Blotter | undefined;
  view: View;
  under: Under;
}

/** Where the pages looked at last were left, while the window lives, if a hand had moved them: one comes back to where one was. */
const left = new Map<string, { view: View; width: number; height: number }>();
const mostLeft = 200;

/** Lays a page on the blotter as long as it is shown. */
export function useBlotter(
  holder: RefObject<HTMLDivElement | null>,
  { space, notebook, page, room, next, startView, onPresent, document }: Laid,
): OnBlotter {
  const { core, live, assets } = useWorkspace();
  const library = useLibrary(space.id);
  const mayWrite = may(space, 'Write');
  const [blotter, setBlotter] = useState<Blotter>();
  const [view, setView] = useState<View>({ scale: 0, x: 0, y: 0 });
  const first = useRef(startView);
  const laid = useRef<Blotter>(undefined);
  const own = drawPaper(core, page.paper).own;
  const asset = own ? library?.find(own)?.source : undefined;
  const { paper } = page;
  const under: Under = {
    paper,
    space: space.id,
    notebook: { handle: notebook.handle, id: notebook.id },
    asset,
    assets,
  };
  const latest = useRef({ under, room, next });
  latest.current = { under, room, next };

  useEffect(() => {
    const { under, room, next } = latest.current;
    const { clientWidth: width, clientHeight: height } = holder.current!;
    const before = left.get(page.id);
    const isSame = before?.width === width && before.height === height;
    const made = new Blotter(holder.current!, {
      core,
      page: document,
      live,
      under,
      mayWrite,
      room,
      next,
      startView: first.current ?? (isSame ? before.view : undefined),
      onView: (to) => {
        // Where the hand has put it is where it lies when it is laid down anew.
        first.current = to;
        setView(to);
      },
    });
    document.onPresent = onPresent;
    setView(made.view.now);
    setBlotter(made);
    laid.current = made;
    return () => {
      document.onPresent = undefined;
      left.delete(page.id);
      if (made.view.isMoved) left.set(page.id, { view: made.view.now, ...made.laidSize });
      if (left.size > mostLeft) left.delete(left.keys().next().value!);
      made.stop();
    };
  }, [core, document, live, mayWrite, onPresent, notebook.id]);

  // What others do to the notebook, and what is opened beside the sheet, changes about it what it must and leaves the hand at its work.
  useOnChange(() => laid.current?.setUnder(latest.current.under), [paper, asset]);
  useOnChange(() => laid.current?.setRoom(latest.current.room), [room.left, room.right]);
  useOnChange(() => laid.current?.setNext(latest.current.next), [next.turning, next.before?.id, next.after?.id]);

  // A planner's dates and calendar are part of the notebook.
  useEffect(() => {
    if (page.planner) blotter?.redraw();
  }, [blotter, notebook.version, page.planner]);

  return { blotter, view, under };
}

/** Does something whenever one of these is another than before; not the first time. */
function useOnChange(change: () => void, of: unknown[]): void {
  const isFirst = useRef(true);
  useEffect(() => {
    if (isFirst.current) isFirst.current = false;
    else change();
  }, of);
}
