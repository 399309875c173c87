import { may } from '../data/rights';
import { t } from '@lingui/core/macro';
import { sentenceOf } from '../core/runtime';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { createPortal, flushSync } from 'react-dom';
import { canBeOpened, openFile, saveFile, type ShownFile } from '../data/keptFiles';
import type { Seen } from '../core/seenBridge';
import { useLeafLinks, usePrintedWords } from '../data/leaves';
import { seenAt, useSeen } from '../data/seen';
import { addSpot, type Spot, useSpots } from '../data/spots';
import { LiftedContext, useFollowedLectern, useLiftedOn } from '../data/useLecterns';
import { useLibrary } from '../data/useLibrary';
import type { Notebook } from '../data/useNotebook';
import type { Writer } from '../data/usePeople';
import { useDocument, useWorkspace } from '../data/useWorkspace';
import { AsideSheet } from '../aside/AsideSheet';
import { useAside, wantsAside } from '../aside/useAside';
import { LecternLayer } from '../lectern/LecternLayer';
import { LinkDialog } from '../links/LinkDialog';
import { useFollow } from '../links/useFollow';
import type { NotebookEntry } from '../model/items';
import { addressOf } from '../model/target';
import type { Space } from '../server/session';
import { useLongWork, WorkLine } from '../sheet/blotter/longWork';
import { useBlotter } from '../sheet/blotter/useBlotter';
import { GuideLayer } from '../sheet/guide/GuideLayer';
import { allKinds, type Taken, type TypingPlace } from '../sheet/hand/things';
import type { NextPage, NextPages } from '../sheet/ink/neighbours';
import type { Room, View } from '../sheet/ink/view';
import { Loupe } from '../sheet/loupe/Loupe';
import { RetraceBar } from '../sheet/retrace/RetraceBar';
import { arrived } from '../sheet/selection/clipboard';
import { useSelection } from '../sheet/selection/useSelection';
import { TypingLayer } from '../sheet/text/TypingLayer';
import { mayWriteOnLayer } from '../sheet/tools/layers';
import { mark, markHalf } from '../sheet/tools/mark';
import type { SheetEvents } from '../sheet/hand/events';
import type { SheetActs, Tools } from '../sheet/hand/tool';
import { Tray } from '../sheet/tools/Tray';
import { useTrayPlace } from '../sheet/tools/useTrayPlace';
import { StampDialog } from './StampDialog';
import { MarkKindDialog } from '../spots/MarkKindDialog';
import { kindsOf } from '../spots/markKinds';
import { HistoryPanel } from '../history/HistoryPanel';
import { SpotLayer } from '../spots/SpotLayer';
import type { OpenDocument } from '../sync/openDocument';
import { copyText, say } from '../ui/saying';
import { phone, useMedia } from '../ui/useMedia';
import { Carets } from './Carets';
import { FullCorner } from './FullCorner';
import { FollowLine } from './FollowLine';
import { HeldFrames } from './HeldFrames';
import { PenSigns } from './PenSigns';
import { useFollowing } from './useFollowing';
import { useHolding } from './useHolding';
import { PullHint } from './PullHint';
import { SheetControls } from './SheetControls';
import { TakenLayer } from './TakenLayer';
import { useCarrying } from './useCarrying';
import { usePageSteps } from './usePageSteps';
import { usePuttingIn } from './usePuttingIn';
import { useAtHand, useSheetEvents } from './useSheetEvents';
import { FindLayer } from './FindLayer';
import { LeafLinks } from './LeafLinks';
import { SeenLayer } from './SeenLayer';
import { useSeenActs } from './useSeenActs';
import { useSheetKeys } from './useSheetKeys';

/** What to bring into sight: a place, a mark, or the page as it was at a moment, UTC milliseconds. */
export interface Seek {
  at?: string | undefined;
  mark?: string | undefined;
  past?: string | undefined;
}

export interface SheetProps {
  space: Space;
  notebook: Notebook;
  page: NotebookEntry;
  people: Writer[];
  tools: Tools;
  /** Whether the tray lies beside this sheet, and keys act on it: of two sheets, it is the one touched last. */
  active: boolean;
  tray: boolean;
  next: NextPages;
  seek: Seek;
  /** Looks at the page as it was, or as it is again; undefined where that is not offered. */
  onPast: ((on: boolean) => void) | undefined;
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
  /** Where in the line above the sheet what is the sheet's stands. */
  controls: HTMLElement | null;
}

/** Behind what was just written a mark keeps so far from it, 0.01 mm. */
const markGap = 250;
/** So near a press is on a link, or on words that something can be done with, 0.01 mm. */
const linkReach = 120;
const seenReach = 80;
const nothing: string[] = [];
const noSpots: Spot[] = [];
/** A screen on which the tray's names would take the room of the sheet. */
const narrow = '(max-width: 959px)';
/** So much of the blotter the tray takes, pixels. */
const trayRoom = { slim: 52, full: 122 };

/** The sheet, with the tray at the side of the hand that does not write. */
export function Sheet(props: SheetProps) {
  const document = useDocument(props.space.id, 'page', props.page.id);
  return document ? <OpenSheet {...props} document={document} /> : <div className="grow bg-desk" aria-busy="true" />;
}

function OpenSheet(props: SheetProps & { document: OpenDocument }) {
  const { space, notebook, page, people, tools, active, tray, next, seek, document } = props;
  const { startView, onPresent, onTurn, onPage, onEntry, onInk, onMake, onFull, controls } = props;
  const workspace = useWorkspace();
  const { core } = workspace;
  const library = useLibrary(space.id);
  const navigate = useNavigate();
  const { habits } = tools;
  const isPast = props.onPast !== undefined && seek.past !== undefined && !document.isHeld;
  const mayWrite = may(space, 'Write');
  const holder = useRef<HTMLDivElement>(null);
  const asideHolder = useRef<HTMLDivElement>(null);
  const desk = useRef<HTMLDivElement>(null);
  const slim = useMedia(narrow);
  const [place, setPlace] = useTrayPlace(useMedia(phone));
  const side = place.side ?? (habits.leftHanded ? 'right' : 'left');
  const mayHold = mayWrite || wantsAside(tools);
  const room = roomBeside(mayHold && tray && !place.folded, slim, side);
  const { blotter, view, under } = useBlotter(holder, {
    space,
    notebook,
    page,
    document,
    room,
    next,
    startView,
    onPresent,
  });
  const note = { space: space.id, notebook: notebook.id, title: page.title, paper: page.paper };
  const aside = useAside(asideHolder, { page: document, note, tools, main: blotter, under, isAway: isPast });
  const reading = tools.reading || !mayHold || isPast || (aside.isWanted && !aside.isInHand);
  /** What the hand writes on. */
  const hand = aside.isInHand ? { blotter: aside.blotter, page: aside.document! } : { blotter, page: document };
  const followsLectern = useFollowedLectern() !== '';
  const lifted = useLiftedOn(page.id);
  useFollowing(holder, blotter, view, page.id, active, onPage, followsLectern && !reading);
  const [taken, setTaken] = useState<Taken>();
  const [chosen, setChosen] = useState<string>();
  const [typing, setTyping] = useState<TypingPlace>();
  const [linking, setLinking] = useState(false);
  const [stamping, setStamping] = useState(false);
  const [newKind, setNewKind] = useState(false);
  const [pressed, setPressed] = useState<Seen>();
  const [pull, setPull] = useState({ share: 0, meant: false });
  const spots = useSpots(document) ?? noSpots;
  const kinds = useMemo(() => kindsOf(library), [library]);
  const { follow, asking } = useFollow();
  const worker = useLongWork(hand.page);
  const layer = tools.layerOf(hand.page.id);
  const { selection: own, paste } = useSelection({ ...hand, layer, taken, setTaken, worker });
  const selection = useHolding(hand.page.address, taken, own);
  const { undo, redo, mayUndo, mayRedo } = usePageSteps(hand.page, worker);
  const take = (items: string[]) => {
    const area = core.HandBridge.BoundsOf(hand.page.handle, items) as unknown as Taken['area'];
    setTaken({ items, area });
    return area;
  };
  const { carryOn, carryOver, give } = useCarrying(document, next, onMake, (to) => {
    setTaken(undefined);
    onPage(to);
  });

  const puttingIn = usePuttingIn({
    desk,
    page: hand.page,
    blotter: hand.blotter,
    paper: page.paper,
    layer,
    active,
    mayWrite: mayHold && !reading,
    take: (items) => void take(items),
    paste: () => paste(),
  });
  const here = { space: space.id, notebook: notebook.id, page: page.id };
  const seen = useSeen(hand.page, habits.seesWords && !isPast);
  const leafLinks = useLeafLinks(document, reading && !isPast);
  const printed = usePrintedWords(document, !reading);
  const { acts, dialog: planning } = useSeenActs({
    here,
    page: hand.page,
    seen,
    mayWrite: mayHold && !isPast,
    mayMark: mayWrite && !isPast && !aside.isInHand,
    follow: (target, title) => void follow(target, title),
    preview: puttingIn.putPreview,
  });

  const chooseSeen = (words: Seen | undefined) => (words?.kind === 'link' ? acts.follow(words) : setPressed(words));

  /** Ticks a box that stands there, or clears it; true when there is one. */
  const tick = (x: number, y: number): boolean => {
    const box = mayHold && !isPast ? core.TextBridge.TickAt(hand.page.handle, x, y) : '';
    return box !== '' && hand.page.perform((handle, now) => core.TextBridge.Tick(handle, box, now));
  };
  /** Lifts the pinned slip that lies there, or lets it down; true when there is one. */
  const lift = (x: number, y: number): boolean => {
    const { Folded, Fold, PinnedAt } = core.ThingBridge;
    const { page: on } = hand;
    const slip = mayHold && !isPast ? PinnedAt(on.handle, x, y) : '';
    return (
      slip !== '' && on.performTogether((handle, now) => Fold(handle, [slip], Folded(handle, [slip]) !== '1', now))
    );
  };
  const press = (x: number, y: number): boolean => {
    setPressed(undefined);
    if (reading && (tick(x, y) || lift(x, y))) return true;
    const file = reading ? core.ThingBridge.FileAt(hand.page.handle, x, y) : '';
    if (file) {
      const shown = JSON.parse(file) as ShownFile;
      void (canBeOpened(shown) ? openFile : saveFile)(workspace, hand.page.space, shown);
      return true;
    }
    const link = spots.findLast((spot) => spot.kind === 'link' && holds(spot.area, x, y, linkReach));
    if (link) void follow(link.target!, link.title);
    const words = reading && !link ? seenAt(seen, x, y, seenReach) : undefined;
    if (words) chooseSeen(words);
    const printed = link || words ? undefined : blotter?.links.findLast((one) => holds(one.area, x, y, 0));
    if (printed) {
      if (printed.target.startsWith('entry/')) onEntry(printed.target.slice('entry/'.length));
      else onPage(printed.page);
    }
    return link !== undefined || words !== undefined || printed !== undefined;
  };
  /** In the running line: behind what was just written; else in the middle of what is seen, from where arrow keys move it. */
  const markHere = () => {
    if (!blotter) return;
    const last = hand.blotter?.lastInk;
    const x = last ? last[2] + markGap + markHalf : blotter.view.middle.x;
    const y = last ? (last[1] + last[3]) / 2 : blotter.view.middle.y;
    const made = addSpot(core, document, 'mark', [x - markHalf, y - markHalf, x + markHalf, y + markHalf], [], {
      mark: tools.settingsOf(mark).kind,
    });
    // The keys go on with it.
    setTimeout(() => globalThis.document.querySelector<HTMLElement>(`[data-spot="${made}"]`)?.focus());
  };
  const all = () => core.HandBridge.SelectAll(hand.page.handle, allKinds, '');
  const takeAll = () => {
    const items = all();
    if (items.length > 0) take(items);
  };
  const clear = () => {
    const items = all();
    if (items.length > 0) hand.page.perform((handle, now) => core.HandBridge.Remove(handle, items, now));
    tools.fold();
  };

  const events: SheetEvents = {
    begun: () => {
      tools.fold();
      setChosen(undefined);
      setTyping(undefined);
    },
    used: tools.used,
    taken: setTaken,
    chosen: setChosen,
    // A keyboard on the screen comes up only while the press that asks for it goes on.
    types: (place) => {
      if (tick(place.x, place.y)) return;
      const formula = place.width === undefined && core.FormulaBridge.At(hand.page.handle, place.x, place.y);
      if (formula) take([formula]);
      else flushSync(() => setTyping(place));
    },
    picked: (colour) => {
      if (!colour) say(t`There is no ink here.`);
      tools.picked(colour);
    },
    needs: (assets, from) =>
      void workspace.assets.carry(assets, from, hand.page.space).catch((problem: unknown) => say(sentenceOf(problem))),
    inked: onInk,
    pulled: (share, meant) => setPull({ share, meant }),
    // Whoever looks at the page as it was stays on it until they leave that.
    turned: (by, turning) => !isPast && onTurn(by, turning),
    buttonPressed: () => (habits.button === 'pen' ? tools.swap() : tools.toggle(habits.button)),
    undo,
    redo,
    say,
    pressed: press,
    mayWriteOn: () => mayWriteOnLayer(core, hand.page, layer, tools),
    // What is the person's own goes to no page by itself.
    carried: aside.isInHand ? () => false : carryOn,
  };
  const layerHere = tools.layerOf(page.id);
  useSheetEvents(blotter, events);
  useSheetEvents(aside.blotter, events);
  useAtHand(blotter, {
    tools,
    reading: reading || aside.isWanted,
    layer: layerHere,
    taken: aside.isInHand ? undefined : taken,
    printed,
  });
  useAtHand(aside.blotter, { tools, reading, layer, taken: aside.isInHand ? taken : undefined, printed });

  // Another tool in the hand lets go of what was taken.
  useEffect(() => {
    if (!tools.tool.keepsTaken) setTaken(undefined);
    setTyping(undefined);
  }, [tools.held, tools.chosen]);

  // What was taken is the sheet's that it lies on.
  useEffect(() => {
    setTaken(undefined);
    setTyping(undefined);
  }, [aside.isInHand]);

  // What was pressed while reading is done with.
  useEffect(() => setPressed(undefined), [reading]);

  // What was carried here from another page is selected, once.
  useEffect(() => {
    const items = blotter ? arrived(page.id) : [];
    if (items.length > 0) blotter!.view.show(take(items));
  }, [blotter]);

  // Comes to a place or mark that a link names, once.
  useEffect(() => {
    if (!blotter || document.isHeld) return;
    const spot = seek.mark ? spots.find((one) => one.id === seek.mark) : undefined;
    const [x, y] = (seek.at ?? '').split(',').map(Number);
    if (spot) {
      blotter.view.show(spot.area);
      setChosen(spot.id);
    } else if (seek.at && x !== undefined && y !== undefined) blotter.view.show([x, y, x, y]);
  }, [blotter, document.isHeld, seek.at, seek.mark]);

  useSheetKeys({
    active,
    mayWrite: mayHold,
    reading,
    tools,
    selection,
    view: blotter?.view,
    undo,
    redo,
    takeAll,
    markHere,
    full: onFull,
    find: () => tools.turn('find', true),
  });
  const sheetActs: SheetActs = {
    core,
    page: hand.page,
    notebook: notebook.id,
    kinds,
    people,
    middle: () => blotter?.view.middle ?? { x: 0, y: 0 },
    newKind: () => setNewKind(true),
    takeAll,
    paste: () => paste(),
    ...puttingIn,
    putPages: space.isGuest
      ? undefined
      : () => void navigate(`/bring/${space.id}?notebook=${notebook.id}&parent=${page.parent}&after=${page.id}`),
    clear,
  };

  return (
    <>
      {isPast && (
        <HistoryPanel
          key={seek.past}
          notebook={notebook}
          page={page}
          document={document}
          view={view}
          over={desk}
          mayWrite={mayWrite}
          worker={worker}
          from={Number(seek.past) > 1 ? Number(seek.past) : undefined}
          onBack={(items) => {
            props.onPast!(false);
            if (items.length > 0) blotter?.view.show(take(items));
          }}
          onPage={onPage}
          onClose={() => props.onPast!(false)}
        />
      )}
      <div ref={desk} className="relative min-h-0 grow overflow-clip bg-desk">
        <div
          ref={holder}
          role="application"
          aria-label={reading ? t`Sheet` : t`Sheet. Write with a pen, a finger or the mouse.`}
          data-testid="sheet"
          data-view={`${view.scale} ${view.x} ${view.y}`}
          data-sheet={blotter?.sheet.join(' ')}
          data-reading={reading ? '1' : undefined}
          className={`absolute inset-0 touch-none select-none ${reading ? 'cursor-grab' : 'cursor-crosshair'}`}
        />
        <AsideSheet holder={asideHolder} aside={aside} main={blotter} view={view} mayWrite={mayWrite} />
        <LiftedContext value={lifted}>
          <SpotLayer
            spots={spots}
            view={view}
            page={document}
            kinds={kinds}
            people={people}
            mayWrite={mayWrite && !tools.reading && !isPast}
            mayTick={mayWrite && reading && !isPast}
            reading={reading}
            chosen={chosen}
            onChoose={setChosen}
            onFollow={(spot: Spot) => void follow(spot.target!, spot.title)}
            onCopyLink={(spot) => copyText(addressOf({ kind: 'mark', ...here, mark: spot.id }))}
          />
        </LiftedContext>
        {reading && <LeafLinks links={leafLinks} view={view} />}
        <SeenLayer seen={seen} view={view} reading={reading} chosen={pressed} acts={acts} onChoose={chooseSeen} />
        {active && !followsLectern && <FollowLine people={people} />}
        {active && <LecternLayer holder={holder} page={page.id} view={view} />}
        <Carets document={document} view={view} people={people} />
        <HeldFrames document={document} view={view} people={people} />
        <PenSigns blotter={blotter} view={view} people={people} />
        <PullHint
          pull={pull.share}
          meant={pull.meant}
          sideways={next.turning === 'sideways'}
          isLast={next.after === undefined}
          isFirst={next.before === undefined}
          mayWrite={mayWrite && !reading}
        />
        {tools.guide && !reading && (
          <GuideLayer
            guide={tools.guide}
            view={view}
            writes={tools.tool.keepsToGuide ?? false}
            onGuide={tools.setGuide}
          />
        )}
        {typing && !reading && (
          <TypingLayer
            page={hand.page}
            paper={page.paper}
            place={typing}
            view={view}
            tools={tools}
            undo={undo}
            redo={redo}
            seen={seen}
            acts={acts}
            onLeave={() => setTyping(undefined)}
            onPlot={(table) => {
              setTyping(undefined);
              puttingIn.putPlot(table);
            }}
          />
        )}
        {selection && !reading && (
          <TakenLayer
            layer={layer}
            here={here}
            selection={selection}
            document={hand.page}
            holder={aside.isInHand ? asideHolder : holder}
            blotter={hand.blotter}
            view={view}
            tools={tools}
            setTaken={setTaken}
            onType={(into) => setTyping({ x: 0, y: 0, ...into })}
            onChoose={setChosen}
            onLink={() => setLinking(true)}
            onStamp={() => setStamping(true)}
            onEdge={(by, taken) => !aside.isInHand && carryOver(by, taken)}
            {...(aside.isInHand
              ? { onGive: mayWrite ? () => give(hand.page, taken!.items, () => setTaken(undefined)) : undefined }
              : {})}
          />
        )}
        {tools.isOn('loupe') && !reading && blotter && active && (
          <Loupe main={hand.blotter!} view={view} page={hand.page} under={under} tools={tools} onInk={onInk} />
        )}
        {tools.isOn('retrace') && blotter && active && (
          <RetraceBar
            blotter={hand.blotter!}
            page={hand.page}
            items={taken?.items ?? nothing}
            people={people}
            onClose={() => tools.turn('retrace', false)}
          />
        )}
        {tools.isOn('find') && active && (
          <FindLayer
            page={hand.page}
            view={view}
            sheetView={hand.blotter?.view}
            mayWrite={mayHold && !reading}
            space={space.id}
            notebook={notebook}
            onPage={onPage}
            onClose={() => tools.turn('find', false)}
          />
        )}
        {worker.shown && <WorkLine work={worker.shown} />}
        {!reading && tray && (
          <Tray
            tools={tools}
            sheet={sheetActs}
            side={side}
            slim={slim}
            folded={place.folded}
            onPlace={setPlace}
            undo={mayUndo ? undo : undefined}
            redo={mayRedo ? redo : undefined}
          />
        )}
        <FullCorner side={side} hasTray={!reading && tray} onLeave={onFull} />
        {controls &&
          createPortal(
            <SheetControls
              blotter={blotter}
              scale={view.scale}
              tools={tools}
              mayWrite={mayWrite}
              reading={reading}
              onAside={aside.isWanted}
              onToggleAside={() => aside.lay(!aside.isWanted)}
              onFull={onFull}
            />,
            controls,
          )}
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
        {stamping && taken && <StampDialog page={hand.page} items={taken.items} onClose={() => setStamping(false)} />}
        {newKind && library && (
          <MarkKindDialog
            library={library}
            onMade={(kind) => tools.change(mark, { kind })}
            onClose={() => setNewKind(false)}
          />
        )}
        {asking}
        {planning}
      </div>
    </>
  );
}

/** Only beside the sheet the tray takes room from it; on a narrow screen it stands at its very edge. */
function roomBeside(hasTray: boolean, slim: boolean, side: 'left' | 'right'): Room {
  const tray = hasTray ? (slim ? trayRoom.slim : trayRoom.full) : 0;
  return side === 'left' ? { left: tray, right: 0 } : { left: 0, right: tray };
}

function holds(
  [left, top, right, bottom]: readonly [number, number, number, number],
  x: number,
  y: number,
  by: number,
): boolean {
  return x >= left - by && x <= right + by && y >= top - by && y <= bottom + by;
}
