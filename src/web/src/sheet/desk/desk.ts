import type { Core } from '../../core/runtime';
import { type Area, type Drawing, grows, type PrintedLink } from '../../model/drawing';
import type { Live } from '../../sync/live';
import type { OpenDocument } from '../../sync/openDocument';
import { BoxHand } from '../hand/boxHand';
import { EraserHand } from '../hand/eraserHand';
import type { Hand, Workplace } from '../hand/hand';
import { LoopHand } from '../hand/loopHand';
import { PenHand } from '../hand/penHand';
import { PressHand } from '../hand/pressHand';
import { RoomHand } from '../hand/roomHand';
import { ShapeHand } from '../hand/shapeHand';
import { type EraserTool, type Guide, type LoopTool, type Taken, type Tool } from '../hand/tool';
import { type HandSettings, usualHand } from '../../model/habits';
import { DryInk, pixelRatio } from '../ink/dryInk';
import { FloatInk, type FloatPart } from '../ink/floatInk';
import { HoverNib } from '../ink/hoverNib';
import { Neighbours, type NextPages } from '../ink/neighbours';
import { OthersInk } from '../ink/othersInk';
import { OutlineKeeper } from '../ink/outlineKeeper';
import { type InkItem, LostOutlineError, readPacket } from '../ink/packet';
import { PenInput, type Sample, type Touch } from '../hand/penInput';
import { newPen } from '../../model/pens';
import { sheetPaperOf } from '../ink/sheetPaper';
import { afterFrame, soon } from '../ink/soon';
import { dimGround, dimmedPaper, isDark, tintOn } from '../ink/tint';
import { loadUnder } from '../ink/underlay';
import { firstLook, type Fitting, fitted, keepInSight, type Room, snapped, type View, zoomAt } from '../ink/view';
import { WetInk } from '../ink/wetInk';

/** What is under the ink of a page, beyond its own operations. */
export interface Under {
  paper: string;
  space: string;
  notebook: { handle: number; id: string };
  /** The asset of the own paper. */
  asset: string | undefined;
}

const itemsASlice = 600;
/** Fewer things than this are done and painted at once. */
const fewForeseen = 400;
const sliceMilliseconds = 30;
const penEvery = 60;
/** So far past its end a sheet is pulled to turn the page, pixels. */
const pullToTurn = 96;
/** Where a sheet's beginning lies when it is fitted, pixels. */
const restingEdge = 16;
/** What is brought into sight keeps so far from the edges. */
const revealEdge = 24;
/** So near a press that is held is on a thing, pixels. */
const holdReach = 14;
const clothColour = '#1f3d3a';

/** The sheet on the desk: joins the hand, Core and the canvases for one page. Lives outside React, since it works at the pen's speed. */
export class SheetDesk {
  tool: Tool = { name: 'pen', pen: newPen('ball') };
  /** What the eraser and the loop are set to, for when the pen's tail, its button or a finger takes them up. */
  eraser: EraserTool = { way: 'touched', size: 300, onlyHighlighter: false, onlyLayer: false, back: false };
  loop: LoopTool = { box: false, share: 0.5, kinds: 15, onlyLayer: false };
  settings: HandSettings = usualHand;
  guide: Guide | undefined;
  layer = '';
  taken: Taken | undefined;
  zoomLocked = false;
  onView: (view: View) => void = () => {};
  onBegin: () => void = () => {};
  onTaken: (taken: Taken | undefined) => void = () => {};
  /** A press on what may lead somewhere; true when it does. */
  onPress: (x: number, y: number) => boolean = () => false;
  onMark: (x: number, y: number) => void = () => {};
  onFill: (x: number, y: number) => void = () => {};
  onCurtain: (area: Area) => void = () => {};
  /** A colour was picked from the page; undefined where there is no ink. */
  onPick: (colour: string | undefined) => void = () => {};
  /** Room is made and these would leave the sheet, which ends there: whether they go to the next page in one step with it. */
  onCarry: (items: string[], end: number, by: number) => boolean = () => false;
  onErased: () => void = () => {};
  /** Whether the layer that is written on can be; says why not. */
  mayWriteOn: () => boolean = () => true;
  /** The pen's button is to change tools. */
  onButton: () => void = () => {};
  onUndo: () => void = () => {};
  onRedo: () => void = () => {};
  say: (sentence: string) => void = () => {};
  /** How far the sheet is pulled past an end, −1 to 1 and beyond; 0 when it is not. And whether the pull began at that end, and is not the last of a scroll that led there. */
  onPull: (share: number, meant: boolean) => void = () => {};
  /** The page was pulled past its end, or in a seamless notebook scrolled past: where the view goes on for the next page, if it does. A pull that is meant may make one. */
  onTurn: (by: number, turning: { meant: boolean; view?: View }) => void = () => {};
  /** Ink came to the page: how far down it lies, 0 to 1. */
  onInk: (down: number) => void = () => {};
  /** The box of the stroke written last. */
  lastInk: Area | undefined;
  readonly others: OthersInk;

  readonly dry: DryInk;
  readonly float: FloatInk;

  private readonly wet: WetInk;
  private readonly nib: HoverNib;
  private surface: number | undefined;
  private readonly place: Workplace;
  private readonly input: PenInput;
  private readonly sizes: ResizeObserver;
  private neighbours: Neighbours;
  private view: View = { scale: 0, x: 0, y: 0 };
  /** The same as the hand has it, which moves by less than a pixel too. */
  private exact: View = this.view;
  private drawing: Drawing;
  private hand: Hand | undefined;
  private readonly keeper: OutlineKeeper;
  private penSentAt = 0;
  private taking = false;
  /** What is taken is seen already. */
  private foreseen = false;
  private readonly whenTaken: (() => void)[] = [];
  private stopped = false;
  private fitting: Fitting | 'first' | undefined;
  private pull = 0;
  /** Which ends of the sheet were in sight when the pull that goes on began. */
  private pulledFrom: { start: boolean; end: boolean } | undefined;
  /** Core's handle of what the surface shows. */
  private shownHandle = 0;
  /** What was kept to be painted at once cannot be: all is asked for. */
  private isLost = false;
  private shift = false;
  /** The desk has got another size while the hand was at work. */
  private resizeAfter = false;
  private readonly stopFollowing: () => void;

  constructor(
    private readonly holder: HTMLElement,
    private readonly core: Core,
    private readonly page: OpenDocument,
    private readonly live: Live,
    private under: Under,
    private readonly mayWrite: boolean,
    private room: Room,
    next: NextPages,
    startView?: View,
    /** A close-up of the page that another desk shows: it follows nobody's pen, and its view is not for the hand to move. */
    private readonly isLoupe = false,
  ) {
    this.neighbours = new Neighbours(holder, core, next);
    this.dry = new DryInk(holder);
    this.dry.onPainting = () => this.tellPainting();
    this.others = new OthersInk(holder, core);
    this.wet = new WetInk(holder);
    this.float = new FloatInk(holder, (colour) => this.tint(colour));
    this.nib = new HoverNib(holder);
    this.drawing = this.draw();
    this.place = {
      core,
      page,
      live,
      paper: under.paper,
      dry: this.dry,
      wet: this.wet,
      float: this.float,
      view: () => this.view,
      sheet: () => this.drawing.sheet,
      settings: () => this.settings,
      guide: () => this.guide,
      layer: () => this.layer,
      tellCount: () => this.tellCount(),
      wrote: (area) => this.wrote(area),
      lift: (items, parts) => this.lift(items, parts),
      putDown: () => this.putDown(),
      take: (taken) => this.onTaken(taken),
      say: (sentence) => this.say(sentence),
      within: (sample) => (this.neighbours.isSeamless ? this.withinSheet(sample) : sample),
    };
    this.input = new PenInput(holder, {
      mayWrite: () => this.mayWrite && this.tool.name !== 'read',
      settings: () => this.settings,
      begin: (sample, touch) => this.begin(sample, touch),
      move: (samples) => this.hand?.move(samples),
      end: () => this.end(),
      cancel: () => this.cancel(),
      hover: (event, x, y) => this.hover(event, x, y),
      button: () => this.onButton(),
      tapped: (fingers) => (fingers === 2 ? this.onUndo() : this.onRedo()),
      tap: (x, y) => void this.onPress(x, y),
      hold: (x, y) => this.onPress(x, y) || this.holdLocked(x, y),
      letGo: (byWheel) => this.letGo(byWheel),
      zoomLocked: () => this.zoomLocked,
      view: () => this.exact,
      setView: (view) => this.moveView(view),
    });
    if (startView) this.view = this.exact = startView;
    addEventListener('pagehide', this.hide);
    this.sizes = new ResizeObserver(() => this.resize());
    this.sizes.observe(holder);
    this.resize();
    if (!isLoupe) {
      page.onWet = (...piece) => this.others.receive(...piece);
      page.onPen = (...place) => this.others.penAt(...place);
      page.onArrived = () => this.others.dried();
    }
    this.stopFollowing = page.subscribe(() => this.takeChanged());
    this.retint();
    if (page.isQuicklySettled) page.settle();
    const { outlines } = page;
    this.keeper = new OutlineKeeper(page, () => (this.taking || isLoupe ? undefined : this.dry.strokeCount));
    for (const packet of outlines ?? []) this.paint(packet);
    this.keeper.isKept();
    this.tellCount();
    page.afterSettling(() => this.openSurface(outlines !== undefined && !this.isLost));
    this.takeChanged();
    if (page.isHeld) afterFrame(() => page.settle());
  }

  /** The window goes away: what the hand was writing is ink. */
  private readonly hide = () => this.end();

  stop(): void {
    this.stopped = true;
    removeEventListener('pagehide', this.hide);
    // What the hand was writing is ink, whatever took the sheet away.
    this.end();
    this.keeper.stop();
    if (this.surface !== undefined) this.core.PageBridge.CloseSurface(this.page.handle, this.surface);
    this.input.stop();
    this.float.stop();
    this.sizes.disconnect();
    this.stopFollowing();
    this.others.stop();
    this.neighbours.stop();
    if (!this.isLoupe) this.page.onWet = this.page.onPen = this.page.onArrived = undefined;
    this.holder.replaceChildren();
  }

  /** Other pages come before or after it. */
  setNext(next: NextPages): void {
    this.neighbours.stop();
    this.neighbours = new Neighbours(this.holder, this.core, next);
    this.neighbours.resize(this.holder.clientWidth, this.holder.clientHeight);
    this.neighbours.setView(this.view, this.drawing.sheet);
  }

  /** Less or more of the screen is the sheet's. */
  setRoom(room: Room): void {
    this.room = room;
    this.layOut();
  }

  /** It lies on another paper. */
  setUnder(under: Under): void {
    this.under = under;
    this.place.paper = under.paper;
    this.redraw();
    this.retint();
  }

  get currentView(): View {
    return this.view;
  }

  /** The middle of what is seen of the page. */
  get middle(): { x: number; y: number } {
    const { scale, x, y } = this.view;
    return {
      x: Math.round((this.holder.clientWidth / 2 - x) / scale),
      y: Math.round((this.holder.clientHeight / 2 - y) / scale),
    };
  }

  /** A place on the screen, in page units. */
  onPage(clientX: number, clientY: number): { x: number; y: number } {
    const box = this.holder.getBoundingClientRect();
    return {
      x: (clientX - box.left - this.view.x) / this.view.scale,
      y: (clientY - box.top - this.view.y) / this.view.scale,
    };
  }

  /** Shows a path before it is kept; none to take it away. */
  previewPath(path: Path2D | undefined, colour: string): void {
    if (!path) return this.wet.clear();
    this.wet.begin(colour, 1, this.view);
    this.wet.replace(path);
  }

  /** Of the desk, pixels. */
  get size(): { width: number; height: number } {
    return { width: this.holder.clientWidth, height: this.holder.clientHeight };
  }

  get sheet(): Area {
    return this.drawing.sheet;
  }

  get links(): PrintedLink[] {
    return this.drawing.links;
  }

  fit(fitting: Fitting): void {
    const { clientWidth, clientHeight } = this.holder;
    this.setView(fitted(fitting, this.drawing.sheet, clientWidth, clientHeight, this.room));
    this.fitting = fitting;
  }

  zoomBy(factor: number): void {
    const { clientWidth, clientHeight } = this.holder;
    this.setView(zoomAt(this.view, factor, clientWidth / 2, clientHeight / 2));
  }

  zoomTo(scale: number): void {
    this.zoomBy(scale / this.view.scale);
  }

  /** Shows items floating above the page, in place of where they lie. */
  lift(items: readonly string[], parts: FloatPart[]): void {
    this.dry.lift(new Set(items));
    this.float.show(parts);
  }

  /**
   * Shows what is about to be done to very many things before the rules have done it. What they say is taken once it is painted, and where they
   * refuse, all is asked for again.
   */
  foresee(ids: readonly string[], how: (item: InkItem) => InkItem, perform: () => void): void {
    if (ids.length < fewForeseen || this.taking) return perform();
    this.taking = this.foreseen = true;
    this.dry.change(new Set(ids), how);
    try {
      perform();
    } catch (error) {
      this.taking = this.foreseen = false;
      this.startAnew();
      throw error;
    }
    this.dry.whenPainted(() =>
      soon(() => {
        this.taking = false;
        if (!this.stopped) this.takeChanged();
        this.whenSeen(() => (this.foreseen = false));
      }),
    );
  }

  /** Something may soon be done to these. */
  anticipate(ids: readonly string[]): void {
    this.dry.anticipate(ids.length < fewForeseen ? undefined : new Set(ids));
  }

  /** Once all that is known to have changed is seen. */
  whenSeen(then: () => void): void {
    const seen = () => this.dry.whenPainted(then);
    if (this.taking) this.whenTaken.push(seen);
    else seen();
  }

  /** Puts down what floats, once the page shows it where it now lies. */
  putDown(): void {
    const floating = this.float.parts;
    const land = () => {
      if (this.float.parts !== floating) return;
      this.dry.lift(new Set());
      this.dry.whenPainted(() => this.float.parts === floating && this.float.show([]));
    };
    if (this.taking) this.whenTaken.push(land);
    else land();
  }

  /** Brings a part of the page into sight. */
  show([left, top, right, bottom]: Area): void {
    const { clientWidth, clientHeight } = this.holder;
    const { scale } = this.view;
    this.setView({
      scale,
      x: clientWidth / 2 - ((left + right) / 2) * scale,
      y: Math.min(16 - this.drawing.sheet[1] * scale, clientHeight / 2 - ((top + bottom) / 2) * scale),
    });
  }

  /** Moves the page no more than it takes to have a part of it in sight, above so many pixels at the foot that are covered. */
  reveal([left, top, right, bottom]: Area, covered: number): void {
    const { clientWidth, clientHeight } = this.holder;
    const { scale, x, y } = this.view;
    const within = (from: number, to: number, now: number, room: number) =>
      Math.max(revealEdge - from * scale, Math.min(now, room - revealEdge - to * scale));
    const next = { scale, x: within(left, right, x, clientWidth), y: within(top, bottom, y, clientHeight - covered) };
    if (next.x !== x || next.y !== y) this.setView(next);
  }

  /** The paper, its dates or its calendar changed, or the ink outgrew the sheet. */
  redraw(): void {
    this.drawing = this.draw();
    this.setView(this.view);
  }

  /** Shows inks so that they can be read on this paper and in this light; what is stored stays. */
  retint(): void {
    this.dry.setTint(isDark(this.dimmed ? dimGround : this.drawing.ground) ? (colour) => this.tint(colour) : undefined);
    this.dry.setPaper(this.sheetPaper());
  }

  /** The sheet with what lies beyond it: all that can be come to. */
  private get reach(): Area {
    const [left, top, right, bottom] = this.drawing.sheet;
    const { box } = this.dry;
    return box && !this.neighbours.isSeamless
      ? [Math.min(left, box[0]), Math.min(top, box[1]), Math.max(right, box[2]), Math.max(bottom, box[3])]
      : this.drawing.sheet;
  }

  private get dimmed(): boolean {
    return this.settings.dimPaper && document.documentElement.dataset.theme === 'quill-night';
  }

  private tint(colour: string): string {
    return tintOn(this.core, this.dimmed ? dimGround : this.drawing.ground, colour);
  }

  private sheetPaper() {
    const paper = sheetPaperOf(this.drawing);
    return this.dimmed ? dimmedPaper(paper) : paper;
  }

  private draw(): Drawing {
    const { paper, space, notebook, asset } = this.under;
    // Only a sheet that grows asks for the ink.
    const drawing = JSON.parse(
      this.core.PaperBridge.Draw(
        paper,
        grows(paper) ? this.page.handle : 0,
        notebook.handle,
        notebook.id,
        this.page.id,
      ),
    ) as Drawing;
    this.drawing = drawing;
    const sheetPaper = this.sheetPaper();
    this.dry.setPaper(sheetPaper);
    if (asset) {
      const whole = JSON.parse(this.core.PaperBridge.Read(paper)) as { width: number; height: number };
      void loadUnder(this.core, space, asset, [0, 0, whole.width, whole.height]).then((loaded) => {
        if (loaded && !this.stopped) this.dry.setPaper({ ...sheetPaper, under: [loaded] });
      });
    }
    return drawing;
  }

  private setView(view: View): void {
    this.fitting = undefined;
    this.exact = keepInSight(view, this.reach, this.holder.clientWidth, this.holder.clientHeight);
    this.view = snapped(this.exact, pixelRatio());
    this.dry.setView(this.view);
    this.others.setView(this.view);
    this.float.setView(this.view);
    this.neighbours.setView(this.view, this.drawing.sheet);
    this.onView(this.view);
  }

  /** Looks at the page exactly so. */
  look(view: View): void {
    this.view = this.exact = snapped(view, pixelRatio());
    this.dry.setView(this.view);
    this.others.setView(this.view);
    this.float.setView(this.view);
  }

  /** The hand moves the sheet: past an end it can be pulled, and in a seamless notebook the next sheet takes over. */
  private moveView(view: View): void {
    if (this.isLoupe) return;
    this.pulledFrom ??= this.endsHere();
    this.setView(view);
    if (this.neighbours.isSeamless) {
      const turn = this.neighbours.passed(this.view, this.drawing.sheet, this.holder.clientHeight);
      if (turn) this.onTurn(turn.by, { meant: false, view: turn.view });
      return;
    }
    const { start, end, size } = this.extent();
    // The sheet's end has left the lower half, or its beginning the upper one: it is being pulled away. A short sheet ends higher up.
    const usualEnd = Math.min(size * 0.55, restingEdge + end - start);
    const past = end < usualEnd ? usualEnd - end : start > size * 0.45 ? size * 0.45 - start : 0;
    this.pull = past / pullToTurn;
    this.onPull(this.pull, this.pull > 0 ? this.pulledFrom.end : this.pulledFrom.start);
  }

  /** Where the sheet begins and ends on the screen, along the way in which pages follow each other, and how much of that is seen; pixels. */
  private extent(): { start: number; end: number; size: number } {
    const { scale, x, y } = this.view;
    const [left, top, right, bottom] = this.reach;
    const { clientWidth, clientHeight } = this.holder;
    return this.neighbours.isSideways
      ? { start: left * scale + x, end: right * scale + x, size: clientWidth }
      : { start: top * scale + y, end: bottom * scale + y, size: clientHeight };
  }

  private endsHere(): { start: boolean; end: boolean } {
    const { start, end, size } = this.extent();
    return { start: start >= 0, end: end <= size };
  }

  private letGo(byWheel: boolean): void {
    const { pull, pulledFrom } = this;
    if (!byWheel) this.exact = this.view;
    this.pulledFrom = undefined;
    if (pull === 0 || !pulledFrom) return;
    this.pull = 0;
    this.onPull(0, false);
    // Turning a wheel on and on is scrolling, and never meant to make anything.
    if (Math.abs(pull) >= 1)
      this.onTurn(Math.sign(pull), { meant: !byWheel && (pull > 0 ? pulledFrom.end : pulledFrom.start) });
  }

  private resize(): void {
    const { clientWidth, clientHeight } = this.holder;
    if (clientWidth === 0 || clientHeight === 0 || !this.dry.needsSize(clientWidth, clientHeight)) return;
    // What is being written is painted on what has this size: it is finished first.
    if (this.hand) return void (this.resizeAfter = true);
    this.dry.resize(clientWidth, clientHeight);
    this.wet.resize(clientWidth, clientHeight);
    this.others.resize(clientWidth, clientHeight);
    this.float.resize(clientWidth, clientHeight);
    this.neighbours.resize(clientWidth, clientHeight);
    this.layOut();
  }

  private layOut(): void {
    const { clientWidth, clientHeight } = this.holder;
    if (this.isLoupe) return this.look(this.view.scale === 0 ? { scale: 0.1, x: 0, y: 0 } : this.view);
    // What was fitted stays so beside another page or the contents; what a hand has moved stays where it is.
    if (this.view.scale === 0 || this.fitting === 'first') {
      this.setView(firstLook(this.drawing.sheet, clientWidth, clientHeight, this.room));
      this.fitting = 'first';
    } else if (this.fitting) this.fit(this.fitting);
    else this.setView(this.view);
  }

  private begin(sample: Sample, touch: Touch): void {
    this.onBegin();
    this.nib.hide();
    this.shift = touch.shift;
    const tool = this.toolOf(touch);
    // Pressing on things one after the other adds to what was taken.
    if (tool.name !== 'loop') this.onTaken(undefined);
    // On a layer that is hidden ink would vanish, and a locked one is not to be changed.
    if ((tool.name === 'pen' || tool.name === 'shape' || tool.name === 'fill') && !this.mayWriteOn()) return;
    this.hand = this.handOf(tool);
    this.hand?.begin(sample);
  }

  /** What was taken is pressed on, at a place on the screen. */
  tapTaken(clientX: number, clientY: number): void {
    const { x, y } = this.onPage(clientX, clientY);
    new LoopHand(this.place, this.loop, this.taken?.items ?? []).press(x, y);
  }

  /** A press that is held on what is locked in place takes it, so that it can be unlocked. */
  private holdLocked(x: number, y: number): boolean {
    if (this.tool.name !== 'loop') return false;
    const items = this.core.HandBridge.LockedAt(this.page.handle, x, y, holdReach / this.view.scale);
    if (items.length === 0) return false;
    this.onTaken({ items, area: this.core.HandBridge.BoundsOf(this.page.handle, items) as unknown as Area });
    return true;
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
  private toolOf({ by }: Touch): Tool {
    const { button, buttonHeld, tail, finger } = this.settings;
    const other =
      by === 'tail'
        ? tail
        : by === 'button' && buttonHeld
          ? button
          : by === 'finger' && finger !== 'write'
            ? finger === 'erase'
              ? 'eraser'
              : 'loop'
            : 'pen';
    return other === 'eraser'
      ? { name: 'eraser', ...this.eraser }
      : other === 'loop'
        ? { name: 'loop', ...this.loop }
        : this.tool;
  }

  private handOf(tool: Tool): Hand | undefined {
    const at = this.place;
    switch (tool.name) {
      case 'pen':
        return new PenHand(at, tool.pen);
      case 'eraser':
        return new EraserHand(at, tool, () => this.onErased());
      case 'loop':
        return new LoopHand(at, tool, this.taken?.items ?? []);
      case 'shape':
        return new ShapeHand(at, tool, () => this.shift);
      case 'room':
        return new RoomHand(at, tool.sideways !== this.shift, tool.toNext, (items, end, by) =>
          this.onCarry(items, end, by),
        );
      case 'curtain':
        return new BoxHand(at, clothColour, (area) => this.onCurtain(area));
      case 'mark':
        return new PressHand((x, y) => this.onMark(x, y));
      case 'fill':
        return new PressHand((x, y) => this.onFill(x, y));
      case 'pick':
        return new PressHand((x, y) => this.onPick(this.dry.colourAt(x, y)));
      case 'read':
        return undefined;
    }
  }

  private wrote(area: Area): void {
    this.lastInk = area;
    const [, top, , bottom] = this.drawing.sheet;
    this.onInk((area[3] - top) / (bottom - top));
  }

  /** In a seamless notebook ink never runs over to the next sheet. */
  private withinSheet({ x, y }: { x: number; y: number }): { x: number; y: number } {
    const [left, top, right, bottom] = this.drawing.sheet;
    return { x: Math.min(Math.max(x, left), right), y: Math.min(Math.max(y, top), bottom) };
  }

  private hover(event: PointerEvent, x: number, y: number): void {
    if (!this.mayWrite) return;
    const { tool } = this;
    if (tool.name === 'pen' || tool.name === 'shape')
      this.nib.show(event, tool.pen.width, this.tint(tool.pen.colour), this.view);
    else if (tool.name === 'eraser' && tool.way !== 'loop') this.nib.show(event, tool.size, undefined, this.view);
    else this.nib.hide();
    const now = performance.now();
    if (now - this.penSentAt < penEvery) return;
    this.penSentAt = now;
    this.live.pen(this.page.address, x, y);
  }

  /** Core tells from now on what changes on the page; all there is on it, unless it is painted already. */
  private openSurface(painted: boolean): void {
    if (this.stopped) return;
    this.shownHandle = this.page.handle;
    this.surface = this.core.PageBridge.OpenSurface(this.shownHandle, painted);
  }

  /** Takes from Core what has changed, in slices, so that a full page does not hold up the pen. */
  private takeChanged(): void {
    if (this.taking || this.page.isHeld) return;
    if (this.shownHandle !== this.page.handle) {
      this.dry.clear();
      this.keeper.clear();
      this.openSurface(false);
    }
    const until = performance.now() + sliceMilliseconds;
    this.dry.hold(true);
    for (;;) {
      if (this.paint(this.core.PageBridge.TakeChanged(this.page.handle, this.surface!, itemsASlice)) < itemsASlice)
        break;
      if (performance.now() > until) {
        this.taking = true;
        this.tellPainting();
        soon(() => {
          this.taking = false;
          this.tellPainting();
          if (!this.stopped) this.takeChanged();
        });
        return;
      }
    }
    this.dry.hold(false);
    this.grow();
    this.tellCount();
    for (const then of this.whenTaken.splice(0)) then();
    this.keeper.lie();
  }

  /** Paints a packet and keeps it, to paint the page from without Core's help when it is opened again. Returns how many items it held. */
  private paint(packet: Uint8Array): number {
    const items = this.read(packet);
    if (!items) return itemsASlice;
    this.dry.show(items);
    if (items.length > 0) this.keeper.add(packet);
    return items.length;
  }

  /** Reads a packet; where it counts on an outline that is not there, the whole page is asked for again, and nothing is missing. */
  private read(packet: Uint8Array): InkItem[] | undefined {
    try {
      return readPacket(packet, this.dry.find);
    } catch (error) {
      if (!(error instanceof LostOutlineError)) throw error;
      this.isLost = true;
      if (this.surface === undefined) return [];
      this.startAnew();
      return undefined;
    }
  }

  /** Asks for all that is on the page. */
  private startAnew(): void {
    this.dry.clear();
    this.keeper.clear();
    if (this.surface === undefined) return;
    this.core.PageBridge.CloseSurface(this.shownHandle, this.surface);
    this.openSurface(false);
    this.takeChanged();
  }

  /** An endless page gets more sheet when its ink needs it. */
  private grow(): void {
    if (!grows(this.under.paper)) return;
    const sheet = this.core.PaperBridge.Sheet(this.under.paper, this.page.handle);
    if (sheet.some((edge, i) => edge !== this.drawing.sheet[i])) this.redraw();
  }

  /** Whether all that is on the page is seen as it now is: “sharp” where only its sharpness is owed. */
  private tellPainting(): void {
    if ((this.taking && !this.foreseen) || this.dry.isPainting)
      this.holder.dataset.painting = this.dry.isSharpening && (!this.taking || this.foreseen) ? 'sharp' : '1';
    else delete this.holder.dataset.painting;
  }

  private tellCount(): void {
    this.holder.dataset.strokes = String(this.dry.strokeCount);
  }
}
