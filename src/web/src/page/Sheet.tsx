import {
  ArrowClockwiseIcon,
  ArrowCounterClockwiseIcon,
  ArrowsOutIcon,
  BookOpenIcon,
  PencilLineIcon,
} from '@phosphor-icons/react';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { Member } from '../data/usePeople';
import { LinkDialog } from '../links/LinkDialog';
import { addressOf } from '../model/target';
import { useFollow } from '../links/useFollow';
import type { NotebookEntry } from '../model/items';
import { copyText, say } from '../ui/saying';
import { useLibrary } from '../data/useLibrary';
import type { Space } from '../server/session';
import { MarkKindDialog } from '../spots/MarkKindDialog';
import { kindsOf } from '../spots/markKinds';
import { SpotLayer } from '../spots/SpotLayer';
import { addSpot, type Spot, useSpots } from '../data/spots';
import { sentenceOf } from '../core/runtime';
import { OpenDocument } from '../sync/openDocument';
import { useDocument, useWorkspace } from '../data/useWorkspace';
import { carry, arrived } from '../sheet/selection/clipboard';
import { SelectionBar } from '../sheet/selection/SelectionBar';
import { barSideOf, SelectionFrame } from '../sheet/selection/SelectionFrame';
import { ShapeHandles, useShapeHandles } from '../sheet/selection/ShapeHandles';
import { useSelection } from '../sheet/selection/useSelection';
import { firstLayer } from '../sheet/hand/eraserHand';
import { allKinds, itemKinds, type Taken } from '../sheet/hand/tool';
import { toRgba } from '../model/pens';
import { stillAtWork, useLongWork, WorkLine } from '../sheet/desk/longWork';
import { GuideLayer } from '../sheet/guide/GuideLayer';
import { Loupe } from '../sheet/loupe/Loupe';
import { RetraceBar } from '../sheet/retrace/RetraceBar';
import type { NextPage, NextPages } from '../sheet/ink/neighbours';
import { rememberCarried, switchCarried } from '../data/carried';
import { framed } from '../sync/frames';
import type { View } from '../sheet/ink/view';
import { PenSigns } from './PenSigns';
import { type Layer, layerFields, nameOfLayer } from '../sheet/tools/LayersPanel';
import { PenTray } from '../sheet/tools/PenTray';
import { PullHint } from './PullHint';
import { Side } from './Side';
import type { Notebook } from '../data/useNotebook';
import { useSheetDesk } from '../sheet/desk/useSheetDesk';
import { useSheetKeys } from './useSheetKeys';
import type { Tools } from '../sheet/tools/useTools';
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
  onTurn: (by: number, turning: { meant: boolean; view?: View }) => void;
  onPage: (page: string) => void;
  /** The note page of a calendar's entry. */
  onEntry: (entry: string) => void;
  /** Ink came to the page: how far down it lies, 0 to 1. */
  onInk: (down: number) => void;
  /** Makes a page after this one. */
  onMake: () => NextPage;
  onFull: () => void;
}

/** A mark put on bare paper is so large, 0.01 mm. */
const markHalf = 350;
const markGap = 250;
/** With these the hand writes, and a ruler holds ink. */
const writing: ReadonlySet<string> = new Set(['pen', 'shape', 'eraser']);
/** Things that leave a sheet lie so far below the head of the next one, 0.01 mm. */
const carriedHead = 1_500;
const itemFields = { fill: 5 } as const;
const nothing: string[] = [];

/** The sheet on the desk, with the tray on one side and what undoes and scales on the other. */
export function Sheet(props: SheetProps) {
  const document = useDocument(props.space.id, 'page', props.page.id);
  return document ? <OpenSheet {...props} document={document} /> : <div className="grow bg-desk" aria-busy="true" />;
}

function OpenSheet({
  space,
  notebook,
  page,
  people,
  tools,
  active,
  tray,
  next,
  seek,
  startView,
  onPresent,
  onTurn,
  onPage,
  onEntry,
  onInk,
  onMake,
  onFull,
  document,
}: SheetProps & { document: OpenDocument }) {
  const workspace = useWorkspace();
  const { core } = workspace;
  const library = useLibrary(space.id);
  const mayWrite = space.role !== 'reader';
  const reading = tools.reading || !mayWrite;
  const holder = useRef<HTMLDivElement>(null);
  const { settings } = tools;
  const { desk, view, signs, under } = useSheetDesk(holder, settings.leftHanded, {
    space,
    notebook,
    page,
    tray,
    next,
    startView,
    onPresent,
    document,
  });
  const [taken, setTaken] = useState<Taken>();
  const [chosen, setChosen] = useState<string>();
  const [linking, setLinking] = useState(false);
  const [newKind, setNewKind] = useState(false);
  const [pull, setPull] = useState({ share: 0, meant: false });
  const spots = useSpots(document);
  const kinds = useMemo(() => kindsOf(library), [library]);
  const { follow, asking } = useFollow();
  const worker = useLongWork(document);
  const layer = tools.layerOf(page.id);
  const { selection, paste } = useSelection({ desk, page: document, layer, taken, setTaken, worker });

  const steps = document.isHeld ? 0 : core.PageBridge.Steps(document.handle);
  const undo = () => {
    if (worker.busy()) return say(stillAtWork);
    const step = core.PageBridge.Step(document.handle, false);
    void worker
      .runBegun('Undoing', core.PageBridge.BeginUndo(document.handle), 'Putting it back')
      .then((isDone) => (isDone ? switchCarried(workspace, document, step, false) : undefined));
  };
  const redo = () => {
    if (worker.busy()) return say(stillAtWork);
    const step = core.PageBridge.Step(document.handle, true);
    void worker
      .runBegun('Redoing', core.PageBridge.BeginRedo(document.handle), 'Taking it away again')
      .then((isDone) => (isDone ? switchCarried(workspace, document, step, true) : undefined));
  };

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
  const mark = (x: number, y: number) =>
    setChosen(
      addSpot(core, document, 'mark', [x - markHalf, y - markHalf, x + markHalf, y + markHalf], [], {
        mark: tools.mark,
      }),
    );
  /** In the running line: behind what was just written; else in the middle of what is seen, from where arrow keys move it. */
  const markHere = () => {
    if (!desk) return;
    const last = desk.lastInk;
    const x = last ? last[2] + markGap + markHalf : desk.middle.x;
    const y = last ? (last[1] + last[3]) / 2 : desk.middle.y;
    const made = addSpot(core, document, 'mark', [x - markHalf, y - markHalf, x + markHalf, y + markHalf], [], {
      mark: tools.mark,
    });
    // The keys go on with it.
    setTimeout(() => globalThis.document.querySelector<HTMLElement>(`[data-spot="${made}"]`)?.focus());
  };

  /** A closed shape takes the fill itself; else the region that ink closes in is filled. */
  const fill = (x: number, y: number) => {
    const { colour, opacity, gap } = tools.fill;
    const closed = core.ShapeBridge.ClosedAt(document.handle, x, y);
    const rgba = toRgba(colour, opacity);
    if (closed)
      return void document.perform((handle, now) =>
        core.HandBridge.Set(handle, [closed], [itemFields.fill], [rgba.toString(16).padStart(8, '0')], now),
      );
    try {
      if (!document.perform((handle, now) => core.ShapeBridge.Fill(handle, page.paper, x, y, gap, rgba, layer, now)))
        say('Nothing closes this in. A wider gap can be chosen with the tool, or the line closed.');
    } catch (error) {
      say(sentenceOf(error));
    }
  };
  /**
   * Takes things to the page after or before this one, in one step with whatever else is done here: they are there before they leave, and are shown there, selected where
   * that is wished for.
   */
  const carryTo = async (
    target: NextPage,
    items: string[],
    dy: number,
    leave: (handle: number, now: number) => Uint8Array,
    select: boolean,
  ) => {
    const onto = await target.open();
    try {
      const all = core.HandBridge.BeginLay(onto.handle, core.HandBridge.Cut(document.handle, items), 0, dy, '');
      const [laid, left] = OpenDocument.performAcross([
        [onto, (handle, now) => core.HandBridge.LayMore(handle, all + 1, now)],
        [document, leave],
      ]);
      const idsOf = (batches: Uint8Array[]) => core.DocumentBridge.IdsOf(framed(batches));
      rememberCarried([
        { at: document.address, page: page.id, done: idsOf(left!) },
        { at: onto.address, page: target.id, done: idsOf(laid!) },
      ]);
      if (select) carry(target.id, core.HandBridge.LastLaid());
      setTaken(undefined);
      onPage(target.id);
    } catch (error) {
      say(sentenceOf(error));
    } finally {
      target.close();
    }
  };
  /** What making room would push off the sheet. Without a page after this one it stays, where it can be come to, and one is offered. */
  const carryOn = (items: string[], end: number, by: number): boolean => {
    const dy = -Math.round(end) + carriedHead;
    if (next.after) {
      void carryTo(
        next.after,
        items,
        dy + by,
        (handle, now) => core.HandBridge.EndRoomCarrying(handle, by, items, now),
        false,
      );
      return true;
    }
    say('It lies beyond the sheet now: there is no page after this one.', {
      words: 'Make one, and take it there',
      do: () => {
        const made = onMake();
        void carryTo(made, items, dy, (handle, now) => core.HandBridge.RemoveFramed(handle, items, now), false);
      },
    });
    return false;
  };
  /** What is held at the edge comes to lie at the head of the page after, and where it lay on the one before. */
  const carryOver = (by: number, { items, area }: Taken) => {
    const open = core.HandBridge.OpenOf(document.handle, items);
    const target = by > 0 ? next.after : next.before;
    if (open.length === 0) return say('It is locked in its place.');
    if (!target) return say(by > 0 ? 'There is no page after this one.' : 'There is no page before this one.');
    void carryTo(
      target,
      open,
      by > 0 ? -Math.round(area[1]) + carriedHead : 0,
      (handle, now) => core.HandBridge.RemoveFramed(handle, open, now),
      true,
    );
  };

  /** On a layer that is hidden or locked nothing is written: it is said, with the way to open it; the panel to change it unfolds. */
  const mayWriteOn = (): boolean => {
    const on = (JSON.parse(core.LayerBridge.All(document.handle)) as Layer[]).find(
      (one) => one.id === (layer || firstLayer),
    );
    if (!on || (!on.hidden && !on.locked)) return true;
    const fields = [...(on.hidden ? [layerFields.hidden] : []), ...(on.locked ? [layerFields.locked] : [])];
    say(`“${nameOfLayer(on)}” is ${on.hidden ? 'hidden' : 'locked'}, so nothing is written on it.`, {
      words: on.hidden ? 'Show it' : 'Unlock it',
      do: () => {
        for (const field of fields)
          document.perform((handle, now) => core.LayerBridge.Set(handle, on.id, field, '', now));
      },
    });
    tools.openPanel('layers');
    return false;
  };

  // Another tool in the hand lets go of what was taken.
  useEffect(() => {
    if (tools.held !== 'loop') setTaken(undefined);
  }, [tools.held, tools.chosen]);

  // What was carried here from another page is selected, once.
  useEffect(() => {
    const items = desk ? arrived(page.id) : [];
    if (items.length === 0) return;
    const area = core.HandBridge.BoundsOf(document.handle, items) as unknown as Taken['area'];
    setTaken({ items, area });
    desk!.show(area);
  }, [desk]);

  useEffect(() => {
    if (!desk) return;
    desk.tool = reading ? { name: 'read' } : tools.tool;
    desk.eraser = tools.eraser;
    desk.loop = tools.loop;
    desk.guide = tools.guide;
    desk.layer = layer;
    desk.taken = taken;
    if (desk.settings.dimPaper !== settings.dimPaper) {
      desk.settings = settings;
      desk.retint();
    }
    desk.settings = settings;
    desk.zoomLocked = tools.zoomLocked;
    desk.onFill = fill;
    desk.onCurtain = (area) => addSpot(core, document, 'curtain', area, [], {});
    desk.onPick = (colour) => {
      if (!colour) say('There is no ink here.');
      tools.picked(colour);
    };
    desk.onCarry = carryOn;
    desk.onErased = tools.erased;
    desk.mayWriteOn = mayWriteOn;
    desk.onButton = () => (settings.button === 'pen' ? tools.swap() : tools.toggle(settings.button));
    desk.onUndo = undo;
    desk.onRedo = redo;
    desk.say = say;
    desk.onBegin = () => {
      tools.fold();
      setChosen(undefined);
    };
    desk.onTaken = setTaken;
    desk.onPress = onPress;
    desk.onMark = mark;
    desk.onPull = (share, meant) => setPull({ share, meant });
    desk.onTurn = onTurn;
    desk.onInk = onInk;
  });

  // Comes to a place or mark that a link names, once.
  useEffect(() => {
    if (!desk || document.isHeld) return;
    const spot = seek.mark ? spots.find((one) => one.id === seek.mark) : undefined;
    const [x, y] = (seek.at ?? '').split(',').map(Number);
    if (spot) {
      desk.show(spot.area);
      setChosen(spot.id);
    } else if (seek.at && x !== undefined && y !== undefined) desk.show([x, y, x, y]);
  }, [desk, document.isHeld, seek.at, seek.mark]);

  const takeAll = () => {
    const items = core.HandBridge.SelectAll(document.handle, allKinds, '');
    if (items.length > 0)
      setTaken({ items, area: core.HandBridge.BoundsOf(document.handle, items) as unknown as Taken['area'] });
  };
  const clear = () => {
    const items = core.HandBridge.SelectAll(document.handle, allKinds, '');
    if (items.length > 0) document.perform((handle, now) => core.HandBridge.Remove(handle, items, now));
    tools.fold();
  };
  useSheetKeys({
    active,
    mayWrite,
    reading,
    tools,
    selection,
    undo,
    redo,
    takeAll,
    paste: () => paste(),
    markHere,
    full: onFull,
  });
  const here = { space: space.id, notebook: notebook.id, page: page.id };
  const barSide = selection && desk ? barSideOf(selection.taken.area, view, desk.size) : 'below';
  const only =
    selection &&
    selection.taken.items.length === 1 &&
    selection.about.kinds === itemKinds.shape &&
    !selection.about.locked
      ? selection.taken.items[0]
      : undefined;
  const handles = useShapeHandles(document, only);
  const isShape = handles.length > 0;

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
      <SpotLayer
        spots={spots}
        view={view}
        page={document}
        kinds={kinds}
        people={people}
        mayWrite={mayWrite && !tools.reading}
        reading={reading}
        chosen={chosen}
        onChoose={setChosen}
        onFollow={(spot: Spot) => void follow(spot.target!, spot.title)}
        onCopyLink={(spot) => copyText(addressOf({ kind: 'mark', ...here, mark: spot.id }))}
      />
      <PenSigns signs={signs} view={view} people={people} />
      <PullHint
        pull={pull.share}
        meant={pull.meant}
        sideways={next.turning === 'sideways'}
        isLast={next.after === undefined}
        isFirst={next.before === undefined}
        mayWrite={mayWrite && !reading}
      />
      {tools.guide && !reading && (
        <GuideLayer guide={tools.guide} view={view} writes={writing.has(tools.tool.name)} onGuide={tools.setGuide} />
      )}
      {selection && !reading && (
        <div
          className="pointer-events-none absolute inset-0 z-10 overflow-hidden"
          data-testid="selection"
          data-items={selection.taken.items.length}
        >
          <SelectionFrame
            selection={selection}
            view={view}
            handles={!isShape}
            barSide={barSide}
            onEdge={(by) => carryOver(by, selection.taken)}
            edgeOf={() => holder.current!.getBoundingClientRect()}
            onTap={(x, y) => desk?.tapTaken(x, y)}
            writes={(event) => {
              // A pen that was chosen writes, whatever lies under it.
              if (event.pointerType !== 'pen' || tools.held !== 'pen') return false;
              setTaken(undefined);
              holder.current!.dispatchEvent(new PointerEvent(event.type, event));
              return true;
            }}
          />
          {isShape && desk && (
            <ShapeHandles
              selection={selection}
              handles={handles}
              desk={desk}
              page={document}
              join={settings.join}
              view={view}
            />
          )}
          <SelectionBar
            selection={selection}
            page={document}
            view={view}
            side={barSide}
            size={desk?.size ?? { width: 0, height: 0 }}
            onLink={() => setLinking(true)}
            onMark={() => {
              setChosen(
                addSpot(core, document, 'mark', selection.taken.area, selection.taken.items, { mark: tools.mark }),
              );
              setTaken(undefined);
            }}
            onHeading={() => {
              addSpot(core, document, 'heading', selection.taken.area, selection.taken.items, { level: '1' });
              setTaken(undefined);
              say('It stands in the contents now, as you wrote it.');
            }}
            onCopyLink={() =>
              copyText(
                addressOf({
                  kind: 'place',
                  ...here,
                  x: (selection.taken.area[0] + selection.taken.area[2]) / 2,
                  y: (selection.taken.area[1] + selection.taken.area[3]) / 2,
                }),
              )
            }
          />
        </div>
      )}
      {tools.loupe && !reading && desk && active && (
        <Loupe main={desk} view={view} page={document} under={under} tools={tools} onInk={onInk} />
      )}
      {tools.retrace && desk && active && (
        <RetraceBar
          desk={desk}
          page={document}
          items={taken?.items ?? nothing}
          people={people}
          onClose={() => tools.setRetrace(false)}
        />
      )}
      {worker.shown && <WorkLine work={worker.shown} />}
      {!reading && tray && (
        <PenTray
          core={core}
          tools={tools}
          notebook={notebook.id}
          page={document}
          kinds={kinds}
          middle={() => desk?.middle ?? { x: 0, y: 0 }}
          people={people}
          onNewKind={() => setNewKind(true)}
          onAll={takeAll}
          onPaste={() => paste()}
          onClear={clear}
        />
      )}
      <button
        type="button"
        aria-label="The tray and the other tools"
        title="The tray and the other tools"
        data-testid="full-corner"
        className={`in-full-shown absolute bottom-4 z-30 size-11 place-items-center rounded-md border border-base-300 bg-base-100/80 ${settings.leftHanded ? 'right-4' : 'left-4'}`}
        onClick={() => {
          const { dataset } = window.document.documentElement;
          dataset.full = dataset.full === 'tray' ? '1' : 'tray';
        }}
      >
        <PencilLineIcon size={22} weight="light" />
      </button>
      <div
        className={`in-full-put-away absolute top-4 flex flex-col gap-1.5 ${settings.leftHanded && tray ? 'left-4' : 'right-4'}`}
      >
        {!reading && (
          <>
            <Side
              label="Undo"
              testId="undo"
              icon={<ArrowCounterClockwiseIcon size={20} weight="light" />}
              disabled={(steps & 1) === 0}
              onPress={undo}
            />
            <Side
              label="Redo"
              testId="redo"
              icon={<ArrowClockwiseIcon size={20} weight="light" />}
              disabled={(steps & 2) === 0}
              onPress={redo}
            />
          </>
        )}
        <ZoomControl desk={desk} scale={view.scale} locked={tools.zoomLocked} onLock={tools.setZoomLocked} />
        {mayWrite && (
          <Side
            label={reading ? 'Write' : 'Read'}
            testId="read-mode"
            icon={reading ? <PencilLineIcon size={20} weight="light" /> : <BookOpenIcon size={20} weight="light" />}
            onPress={() => tools.setReading(!tools.reading)}
          />
        )}
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
      {newKind && library && (
        <MarkKindDialog library={library} onMade={tools.changeMark} onClose={() => setNewKind(false)} />
      )}
      {asking}
    </div>
  );
}

function holds(
  [left, top, right, bottom]: readonly [number, number, number, number],
  x: number,
  y: number,
  by: number,
): boolean {
  return x >= left - by && x <= right + by && y >= top - by && y <= bottom + by;
}
