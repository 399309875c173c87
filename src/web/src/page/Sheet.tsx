import { ArrowClockwiseIcon, ArrowCounterClockwiseIcon, ArrowsOutIcon, BookOpenIcon, PencilLineIcon } from '@phosphor-icons/react';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { Member } from '../group/usePeople';
import { LinkDialog } from '../links/LinkDialog';
import { addressOf } from '../links/target';
import { useFollow } from '../links/useFollow';
import type { NotebookEntry } from '../library/model';
import { copyText, type Say } from '../library/saying';
import { useLibrary } from '../library/useLibrary';
import type { Space } from '../session/session';
import { MarkKindDialog } from '../spots/MarkKindDialog';
import { kindsOf } from '../spots/markKinds';
import { SpotLayer } from '../spots/SpotLayer';
import { addSpot, type Spot, useSpots } from '../spots/spots';
import type { OpenDocument } from '../sync/openDocument';
import { useDocument, useWorkspace } from '../sync/workspace';
import type { Taken } from './ink/desk';
import type { NextPages } from './ink/neighbours';
import type { View } from './ink/view';
import { PenSigns } from './PenSigns';
import { PenTray } from './PenTray';
import { PullHint } from './PullHint';
import { SelectionBar } from './SelectionBar';
import { Side } from './Side';
import type { Notebook } from './useNotebook';
import { useSheetDesk } from './useSheetDesk';
import { useSheetKeys } from './useSheetKeys';
import type { Tools } from './useTools';
import { ZoomControl } from './ZoomControl';

export interface SheetProps {
  space: Space;
  notebook: Notebook;
  page: NotebookEntry;
  people: Member[];
  tools: Tools;
  /** Whether the tray lies beside this sheet, and keys act on it: of two sheets, it is the one touched last. */
  active: boolean;
  tray: boolean;
  next: NextPages;
  /** What to bring into sight: a place, or a mark. */
  seek: { at?: string | undefined; mark?: string | undefined };
  startView: View | undefined;
  onPresent: (people: string[]) => void;
  onTurn: (by: number, view?: View) => void;
  onPage: (page: string) => void;
  /** The note page of a calendar's entry. */
  onEntry: (entry: string) => void;
  /** Ink came to the page: how far down it lies, 0 to 1. */
  onInk: (down: number) => void;
  onFull: () => void;
  say: Say;
}

/** A mark put on bare paper is so large, 0.01 mm. */
const markHalf = 350;
const markGap = 250;

/** The sheet on the desk, with the tray on one side and what undoes and scales on the other. */
export function Sheet(props: SheetProps) {
  const document = useDocument(props.space.id, 'page', props.page.id);
  return document ? <OpenSheet {...props} document={document} /> : <div className="grow bg-desk" aria-busy="true" />;
}

function OpenSheet({ space, notebook, page, people, tools, active, tray, next, seek, startView, onPresent, onTurn, onPage, onEntry, onInk, onFull, say, document }: SheetProps & { document: OpenDocument }) {
  const { core } = useWorkspace();
  const library = useLibrary(space.id);
  const mayWrite = space.role !== 'reader';
  const reading = tools.reading || !mayWrite;
  const holder = useRef<HTMLDivElement>(null);
  const { desk, view, signs } = useSheetDesk(holder, { space, notebook, page, tray, next, startView, onPresent, document });
  const [taken, setTaken] = useState<Taken>();
  const [chosen, setChosen] = useState<string>();
  const [linking, setLinking] = useState(false);
  const [newKind, setNewKind] = useState(false);
  const [pull, setPull] = useState(0);
  const spots = useSpots(document);
  const kinds = useMemo(() => kindsOf(library), [library]);
  const { follow, asking } = useFollow();

  const onPress = (x: number, y: number): boolean => {
    const link = spots.findLast((spot) => spot.kind === 'link' && holds(spot.area, x, y, 120));
    if (link) void follow(link.target!, link.title);
    const printed = link ? undefined : desk?.links.findLast((one) => holds(one.area, x, y, 0));
    if (printed) {
      if (printed.target.startsWith('entry/')) onEntry(printed.target.slice('entry/'.length));
      else onPage(printed.page);
    }
    return link !== undefined || printed !== undefined;
  };
  const mark = (x: number, y: number) => setChosen(addSpot(core, document, 'mark', [x - markHalf, y - markHalf, x + markHalf, y + markHalf], [], { mark: tools.mark }));
  /** In the running line: behind what was just written. */
  const markHere = () => {
    const last = desk?.lastInk;
    if (last) addSpot(core, document, 'mark', [last[2] + markGap, (last[1] + last[3]) / 2 - markHalf, last[2] + markGap + 2 * markHalf, (last[1] + last[3]) / 2 + markHalf], [], { mark: tools.mark });
  };

  useEffect(() => {
    if (!desk) return;
    desk.tool = reading ? { name: 'read' } : tools.tool;
    desk.zoomLocked = tools.zoomLocked;
    desk.onBegin = () => {
      tools.fold();
      setChosen(undefined);
    };
    desk.onTaken = setTaken;
    desk.onPress = onPress;
    desk.onMark = mark;
    desk.onPull = setPull;
    desk.onTurn = onTurn;
    desk.onInk = onInk;
  });

  // Comes to a place or mark that a link names, once.
  useEffect(() => {
    if (!desk) return;
    const spot = seek.mark ? spots.find((one) => one.id === seek.mark) : undefined;
    const [x, y] = (seek.at ?? '').split(',').map(Number);
    if (spot) {
      desk.show(spot.area);
      setChosen(spot.id);
    } else if (seek.at && x !== undefined && y !== undefined) desk.show([x, y, x, y]);
  }, [desk, seek.at, seek.mark]);

  const steps = core.PageBridge.Steps(document.handle);
  const undo = () => document.perform((handle, now) => core.PageBridge.Undo(handle, now));
  const redo = () => document.perform((handle, now) => core.PageBridge.Redo(handle, now));

  const takeAll = () => {
    const items = core.SpotBridge.SelectAll(document.handle);
    if (items.length > 0) setTaken({ items, area: core.SpotBridge.BoundsOf(document.handle, items) as unknown as Taken['area'] });
  };
  const erase = () => {
    document.perform((handle, now) => core.SpotBridge.Remove(handle, taken!.items, now));
    setTaken(undefined);
  };
  useSheetKeys({ active, mayWrite, reading, tools, undo, redo, takeAll, erase: taken?.items.length ? erase : undefined, leave: taken && (() => setTaken(undefined)), markHere, full: onFull });
  const here = { space: space.id, notebook: notebook.id, page: page.id };

  return (
    <div className="relative min-h-0 grow overflow-hidden bg-desk">
      <div
        ref={holder}
        role="application"
        aria-label={reading ? 'Sheet' : 'Sheet. Write with a pen, a finger or the mouse.'}
        data-testid="sheet"
        data-view={`${view.scale} ${view.x} ${view.y}`}
        data-sheet={desk?.sheet.join(' ')}
        data-reading={reading ? '1' : undefined}
        className={`absolute inset-0 touch-none select-none ${reading ? 'cursor-grab' : 'cursor-crosshair'}`}
      />
      <SpotLayer spots={spots} view={view} page={document} kinds={kinds} people={people} mayWrite={mayWrite && !tools.reading} reading={reading} chosen={chosen} onChoose={setChosen} onFollow={(spot: Spot) => void follow(spot.target!, spot.title)} onCopyLink={(spot) => copyText(addressOf({ kind: 'mark', ...here, mark: spot.id }), say)} />
      <PenSigns signs={signs} view={view} people={people} />
      <PullHint pull={pull} sideways={next.turning === 'sideways'} isLast={next.after === undefined} isFirst={next.before === undefined} mayWrite={mayWrite} />
      {taken && !reading && (
        <SelectionBar
          taken={taken}
          view={view}
          onLink={() => setLinking(true)}
          onMark={() => {
            setChosen(addSpot(core, document, 'mark', taken.area, taken.items, { mark: tools.mark }));
            setTaken(undefined);
          }}
          onHeading={() => {
            addSpot(core, document, 'heading', taken.area, taken.items, { level: '1' });
            setTaken(undefined);
            say('It stands in the contents now, as you wrote it.');
          }}
          onCopyLink={() => copyText(addressOf({ kind: 'place', ...here, x: (taken.area[0] + taken.area[2]) / 2, y: (taken.area[1] + taken.area[3]) / 2 }), say)}
          onErase={erase}
          onClose={() => setTaken(undefined)}
        />
      )}
      {!reading && tray && <PenTray core={core} tools={tools} kinds={kinds} onNewKind={() => setNewKind(true)} />}
      <div className="absolute right-4 top-4 flex flex-col gap-1.5">
        {!reading && (
          <>
            <Side label="Undo" testId="undo" icon={<ArrowCounterClockwiseIcon size={20} weight="light" />} disabled={(steps & 1) === 0} onPress={undo} />
            <Side label="Redo" testId="redo" icon={<ArrowClockwiseIcon size={20} weight="light" />} disabled={(steps & 2) === 0} onPress={redo} />
          </>
        )}
        <ZoomControl desk={desk} scale={view.scale} locked={tools.zoomLocked} onLock={tools.setZoomLocked} />
        {mayWrite && <Side label={reading ? 'Write' : 'Read'} testId="read-mode" icon={reading ? <PencilLineIcon size={20} weight="light" /> : <BookOpenIcon size={20} weight="light" />} onPress={() => tools.setReading(!tools.reading)} />}
        <Side label="Full view" testId="full-view" icon={<ArrowsOutIcon size={20} weight="light" />} onPress={onFull} />
      </div>
      {linking && taken && (
        <LinkDialog
          here={here}
          notebook={notebook}
          onChoose={(target, title) => {
            addSpot(core, document, 'link', taken.area, taken.items, { target, title });
            setTaken(undefined);
          }}
          onClose={() => setLinking(false)}
        />
      )}
      {newKind && library && <MarkKindDialog library={library} onMade={tools.changeMark} onClose={() => setNewKind(false)} />}
      {asking}
    </div>
  );
}

function holds([left, top, right, bottom]: readonly [number, number, number, number], x: number, y: number, by: number): boolean {
  return x >= left - by && x <= right + by && y >= top - by && y <= bottom + by;
}
