import type { Core } from '../../core/runtime';
import type { Area, PrintedLink } from '../../model/drawing';
import { type Habits, usualHabits } from '../../model/habits';
import type { Live } from '../../sync/live';
import type { OpenDocument } from '../../sync/openDocument';
import { type SheetEvents, unheard } from '../hand/events';
import type { Hand, HeldTool, Workplace } from '../hand/hand';
import { PenInput, type Sample, type Touch } from '../hand/penInput';
import type { Guide, Taken } from '../hand/things';
import { offerFiles } from '../ink/bitmaps';
import { DryInk } from '../ink/dryInk';
import { FloatInk, type FloatPart } from '../ink/floatInk';
import { HoverNib } from '../ink/hoverNib';
import { Neighbours, type NextPages } from '../ink/neighbours';
import { OthersInk } from '../ink/othersInk';
import type { Room, View } from '../ink/view';
import { WetInk } from '../ink/wetInk';
import { Ground, type Under } from './ground';
import { SheetView } from './sheetView';
import { ShownInk } from './shownInk';

/** A page as it is laid on a blotter. */
export interface LaidPage {
  core: Core;
  page: OpenDocument;
  live: Live;
  under: Under;
  mayWrite: boolean;
  /** What stands over the blotter at its sides. */
  room: Room;
  next: NextPages;
  startView?: View | undefined;
  /** A close-up of the page that another blotter shows: it follows nobody's pen, and its view is not for the hand to move. */
  isLoupe?: boolean;
  /** What it lies over, which is seen through it: both are looked at as one. */
  over?: Blotter;
  onView?: (view: View) => void;
}

/** What the hand has at hand. */
export interface AtHand {
  /** None while one reads. */
  tool: HeldTool | undefined;
  /** What a pen's tail, its button or a finger stands for, by the name that the habits give it. */
  standIns: ReadonlyMap<string, HeldTool>;
  habits: Habits;
  guide: Guide | undefined;
  /** Words that are printed on the page; see {@link Workplace}. */
  printed: readonly number[];
  /** The layer that is written on; empty for the first. */
  layer: string;
  taken: Taken | undefined;
  zoomLocked: boolean;
}

const penEvery = 60;
/** So near a press that is held is on a thing, pixels. */
const holdReach = 14;

/** What a sheet lies on while one writes: joins the hand, Core and the canvases for one page. Lives outside React, since it works at the pen's speed. */
export class Blotter {
  readonly view: SheetView;
  readonly ink: ShownInk;
  readonly others: OthersInk;
  readonly dry: DryInk;
  readonly float: FloatInk;
  /** The size that it is laid out for, pixels; also once it is gone from the screen. */
  laidSize = { width: 0, height: 0 };
  /** The box of the stroke written last. */
  lastInk: Area | undefined;

  private readonly core: Core;
  private readonly page: OpenDocument;
  private readonly ground: Ground;
  private readonly wet: WetInk;
  private readonly nib: HoverNib;
  private readonly place: Workplace;
  private readonly input: PenInput;
  private readonly sizes: ResizeObserver;
  private readonly stopOffering: () => void;
  /** What lies over it. */
  private readonly tops = new Set<Blotter>();
  private neighbours: Neighbours;
  private room: Room;
  private events: SheetEvents = unheard;
  private atHand: AtHand = {
    tool: undefined,
    standIns: new Map(),
    habits: usualHabits,
    guide: undefined,
    printed: [],
    layer: '',
    taken: undefined,
    zoomLocked: false,
  };
  private hand: Hand | undefined;
  private shift = false;
  private penSentAt = 0;
  /** The blotter has got another size while the hand was at work. */
  private resizeAfter = false;
  private stopped = false;

  /** Whether the hand is in the middle of something. */
  get isAtWork(): boolean {
    return this.hand !== undefined;
  }

  constructor(
    private readonly holder: HTMLElement,
    private readonly laid: LaidPage,
  ) {
    const { core, page, live } = laid;
    [this.core, this.page, this.room] = [core, page, laid.room];
    this.neighbours = new Neighbours(holder, core, laid.next);
    this.dry = new DryInk(holder);
    this.others = new OthersInk(holder, core);
    this.wet = new WetInk(holder);
    this.float = new FloatInk(holder, (colour) => this.ground.tint(colour));
    this.nib = new HoverNib(holder);
    const wantsDim = () => this.atHand.habits.dimPaper;
    this.ground = new Ground(core, page, this.dry, laid.under, wantsDim, laid.over !== undefined);
    this.view = new SheetView(
      holder,
      {
        sheet: () => this.sheet,
        ink: () => this.dry.box,
        neighbours: () => this.neighbours,
        room: () => this.room,
        events: () => this.events,
        shown: (view) => this.showAt(view),
      },
      laid.over?.view.now ?? laid.startView,
    );
    laid.over?.tops.add(this);
    this.place = {
      core,
      page,
      live,
      paper: laid.under.paper,
      dry: this.dry,
      wet: this.wet,
      float: this.float,
      view: () => this.view.now,
      sheet: () => this.sheet,
      habits: () => this.atHand.habits,
      guide: () => this.atHand.guide,
      printed: () => this.atHand.printed,
      layer: () => this.atHand.layer,
      taken: () => this.atHand.taken?.items ?? [],
      shift: () => this.shift,
      events: () => this.events,
      tellCount: () => this.tellCount(),
      wrote: (area) => this.wrote(area),
      lift: (items, parts) => this.lift(items, parts),
      putDown: () => this.putDown(),
      within: (sample) => (this.neighbours.isSeamless ? this.withinSheet(sample) : sample),
    };
    this.input = new PenInput(holder, {
      mayWrite: () => laid.mayWrite && this.atHand.tool !== undefined,
      habits: () => this.atHand.habits,
      begin: (sample, touch) => this.begin(sample, touch),
      move: (samples) => this.hand?.move(samples),
      end: () => this.end(),
      cancel: () => this.cancel(),
      hover: (event, x, y) => this.hover(event, x, y),
      button: () => this.events.buttonPressed(),
      tapped: (fingers) => (fingers === 2 ? this.events.undo() : this.events.redo()),
      tap: (x, y) => void this.events.pressed(x, y),
      hold: (x, y) => this.events.pressed(x, y) || this.holdLocked(x, y),
      letGo: (byWheel) => this.lookedAt.letGo(byWheel),
      zoomLocked: () => this.atHand.zoomLocked,
      view: () => this.lookedAt.exact,
      setView: (view) => laid.isLoupe || this.lookedAt.move(view),
    });
    addEventListener('pagehide', this.hide);
    this.sizes = new ResizeObserver(() => this.resize());
    this.sizes.observe(holder);
    this.resize();
    if (!laid.isLoupe) {
      page.onWet = (...piece) => this.others.receive(...piece);
      page.onPen = (...place) => this.others.penAt(...place);
      page.onArrived = () => this.others.dried();
    }
    const { assets, space } = laid.under;
    this.stopOffering = offerFiles((asset, signal) => assets.whenHere(space, asset, signal));
    this.ground.retint();
    // What lies over another page goes along with it: how it was painted is not how it lies.
    this.ink = new ShownInk(holder, core, page, this.dry, !laid.isLoupe && !laid.over, () => this.changed());
    this.tellCount();
  }

  /** The window goes away: what the hand was writing is ink. */
  private readonly hide = () => this.end();

  stop(): void {
    this.stopped = true;
    removeEventListener('pagehide', this.hide);
    // What the hand was writing is ink, whatever took the sheet away.
    this.end();
    this.ink.stop();
    this.stopOffering();
    this.ground.stop();
    this.input.stop();
    this.float.stop();
    this.sizes.disconnect();
    this.others.stop();
    this.neighbours.stop();
    this.laid.over?.tops.delete(this);
    if (!this.laid.isLoupe) this.page.onWet = this.page.onPen = this.page.onArrived = undefined;
    this.holder.replaceChildren();
  }

  /** Who is told and asked from now on. */
  listen(events: SheetEvents): void {
    this.events = events;
  }

  /** What the hand has is another, or set to something else. */
  give(change: Partial<AtHand>): void {
    const { dimPaper } = this.atHand.habits;
    this.atHand = { ...this.atHand, ...change };
    if (this.atHand.habits.dimPaper !== dimPaper) this.ground.retint();
  }

  /** Other pages come before or after it. */
  setNext(next: NextPages): void {
    this.neighbours.stop();
    this.neighbours = new Neighbours(this.holder, this.core, next);
    this.neighbours.resize(this.holder.clientWidth, this.holder.clientHeight);
    this.neighbours.setView(this.view.now, this.sheet);
  }

  /** Less or more of the screen is the sheet's. */
  setRoom(room: Room): void {
    this.room = room;
    this.layOut();
  }

  /** It lies on another paper. */
  setUnder(under: Under): void {
    this.place.paper = under.paper;
    this.ground.lieOn(under);
    this.view.set(this.view.now);
  }

  /** The paper, its dates or its calendar changed. */
  redraw(): void {
    this.ground.redraw();
    this.view.set(this.view.now);
  }

  /** Pixels. */
  get size(): { width: number; height: number } {
    return { width: this.holder.clientWidth, height: this.holder.clientHeight };
  }

  get sheet(): Area {
    return this.laid.over?.sheet ?? this.ground.drawing.sheet;
  }

  /** How the hand looks at it, and moves it. */
  private get lookedAt(): SheetView {
    return this.laid.over?.view ?? this.view;
  }

  get paperColour(): string {
    return this.ground.ground;
  }

  get links(): PrintedLink[] {
    return this.ground.drawing.links;
  }

  /** Shows a path before it is kept; none to take it away. */
  previewPath(path: Path2D | undefined, colour: string): void {
    if (!path) return this.wet.clear();
    this.wet.begin(colour, 1, this.view.now);
    this.wet.replace(path);
  }

  /** Shows items floating above the page, in place of where they lie. */
  lift(items: readonly string[], parts: FloatPart[]): void {
    this.dry.lift(new Set(items));
    this.float.show(parts);
  }

  /** Puts down what floats, once the page shows it where it now lies. */
  putDown(): void {
    const floating = this.float.parts;
    this.ink.whenTaken(() => {
      if (this.float.parts !== floating) return;
      this.dry.lift(new Set());
      this.dry.whenPainted(() => this.float.parts === floating && this.float.show([]));
    });
  }

  /** What was taken is pressed on, at a place on the screen. */
  tapTaken(clientX: number, clientY: number): void {
    const { x, y } = this.view.onPage(clientX, clientY);
    const selecting = [...this.atHand.standIns.values()].find((tool) => tool.pressTaken);
    selecting?.pressTaken?.(this.place, x, y);
  }

  private showAt(view: View): void {
    this.dry.setView(view);
    this.others.setView(view);
    this.float.setView(view);
    for (const top of this.tops) top.view.look(view);
    if (this.laid.isLoupe || this.laid.over) return;
    this.neighbours.setView(view, this.sheet);
    this.laid.onView?.(view);
  }

  private resize(): void {
    const { clientWidth, clientHeight } = this.holder;
    if (clientWidth === 0 || clientHeight === 0 || !this.dry.needsSize(clientWidth, clientHeight)) return;
    // What is being written is painted on what has this size: it is finished first.
    if (this.hand) return void (this.resizeAfter = true);
    this.laidSize = { width: clientWidth, height: clientHeight };
    this.dry.resize(clientWidth, clientHeight);
    this.wet.resize(clientWidth, clientHeight);
    this.others.resize(clientWidth, clientHeight);
    this.float.resize(clientWidth, clientHeight);
    this.neighbours.resize(clientWidth, clientHeight);
    this.layOut();
  }

  private layOut(): void {
    if (this.laid.over) return this.view.look(this.laid.over.view.now);
    if (!this.laid.isLoupe) return this.view.layOut();
    const { now } = this.view;
    this.view.look(now.scale === 0 ? { scale: 0.1, x: 0, y: 0 } : now);
  }

  private begin(sample: Sample, touch: Touch): void {
    this.events.begun();
    this.nib.hide();
    this.shift = touch.shift;
    const tool = this.toolOf(touch);
    if (!tool) return;
    // Pressing on things one after the other adds to what was taken.
    if (!tool.keepsTaken) this.events.taken(undefined);
    // On a layer that is hidden ink would vanish, and a locked one is not to be changed.
    if (tool.leavesInk && !this.events.mayWriteOn()) return;
    this.hand = tool.takeUp(this.place);
    this.hand.begin(sample);
  }

  private end(): void {
    const { hand } = this;
    this.hand = undefined;
    hand?.end();
    this.resizeIfWanted();
  }

  private cancel(): void {
    const { hand } = this;
    this.hand = undefined;
    hand?.cancel();
    this.resizeIfWanted();
  }

  private resizeIfWanted(): void {
    if (!this.resizeAfter || this.stopped) return;
    this.resizeAfter = false;
    this.resize();
  }

  /** The tool in the hand, unless the pen's tail or button, or a finger, stands for another. */
  private toolOf({ by }: Touch): HeldTool | undefined {
    const { tool, standIns, habits } = this.atHand;
    const { button, buttonHeld, tail, finger } = habits;
    const other =
      by === 'tail'
        ? tail
        : by === 'button' && buttonHeld
          ? button
          : by === 'finger' && finger !== 'write'
            ? finger
            : '';
    return standIns.get(other) ?? tool;
  }

  /** A press that is held on what is locked in place takes it, so that it can be unlocked. */
  private holdLocked(x: number, y: number): boolean {
    if (!this.atHand.tool?.keepsTaken) return false;
    const { HandBridge } = this.core;
    const items = HandBridge.LockedAt(this.page.handle, x, y, holdReach / this.view.now.scale);
    if (items.length === 0) return false;
    this.events.taken({ items, area: HandBridge.BoundsOf(this.page.handle, items) as unknown as Area });
    return true;
  }

  private wrote(area: Area): void {
    this.lastInk = area;
    const [, top, , bottom] = this.sheet;
    this.events.inked((area[3] - top) / (bottom - top));
  }

  /** In a seamless notebook ink never runs over to the next sheet. */
  private withinSheet({ x, y }: { x: number; y: number }): { x: number; y: number } {
    const [left, top, right, bottom] = this.sheet;
    return { x: Math.min(Math.max(x, left), right), y: Math.min(Math.max(y, top), bottom) };
  }

  private hover(event: PointerEvent, x: number, y: number): void {
    const { laid } = this;
    if (!laid.mayWrite) return;
    const nib = this.atHand.tool?.nib;
    if (nib) this.nib.show(event, nib.width, nib.colour && this.ground.tint(nib.colour), this.view.now);
    else this.nib.hide();
    const now = performance.now();
    if (now - this.penSentAt < penEvery) return;
    this.penSentAt = now;
    laid.live.pen(this.page.address, x, y);
  }

  private changed(): void {
    if (!this.laid.over && this.ground.grow()) this.view.set(this.view.now);
    this.tellCount();
  }

  private tellCount(): void {
    this.holder.dataset.strokes = String(this.dry.strokeCount);
  }
}
