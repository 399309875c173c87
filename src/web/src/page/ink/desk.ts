import type { Core } from '../../core/runtime';
import type { Area, Drawing, PrintedLink } from '../../papers/drawing';
import type { Live } from '../../sync/live';
import type { OpenDocument } from '../../sync/openDocument';
import { DryInk } from './dryInk';
import { Neighbours, type NextPages } from './neighbours';
import { encodePiece, OthersInk } from './othersInk';
import { readPacket } from './packet';
import { PenInput, type Sample } from './penInput';
import { type Pen, penKindNumbers, toRgba } from './pens';
import { sheetPaperOf } from './sheetPaper';
import { soon } from './soon';
import { loadUnder } from './underlay';
import { firstLook, type Fitting, fitted, keepInSight, type Room, type View, zoomAt } from './view';
import { WetInk } from './wetInk';

/** What is in the hand. */
export type Tool =
  | { name: 'pen'; pen: Pen }
  | { name: 'eraser'; whole: boolean; /** Diameter, 0.01 mm. */ size: number }
  | { name: 'loop' | 'box'; /** How much of a stroke must lie inside, 0 to 1. */ share: number }
  | { name: 'mark' }
  | { name: 'read' };

/** What a loop or box took: ink, or a bare part of the page. */
export interface Taken {
  items: string[];
  area: Area;
}

/** What is under the ink of a page, beyond its own operations. */
export interface Under {
  paper: string;
  space: string;
  notebook: { handle: number; id: string };
  /** The asset of the own paper. */
  asset: string | undefined;
}

const itemsASlice = 150;
const sliceMilliseconds = 30;
const pieceEvery = 25;
const penEvery = 60;
const channels = 6;
const mostSamples = 40_000;
/** So far past its end a sheet is pulled to turn the page, pixels. */
const pullToTurn = 96;
/** Where a sheet's beginning lies when it is fitted, pixels. */
const restingEdge = 16;
/** A box smaller than this, 0.01 mm, is a slip. */
const leastTaken = 150;
const loopPen: Pen = { kind: 'ball', width: 25, colour: '#4f7388' };

/** The sheet on the desk: joins the hand, Core and the canvases for one page. Lives outside React, since it works at the pen's speed. */
export class SheetDesk {
  tool: Tool = { name: 'pen', pen: { kind: 'ball', width: 40, colour: '#22302e' } };
  zoomLocked = false;
  onView: (view: View) => void = () => {};
  onBegin: () => void = () => {};
  onTaken: (taken: Taken | undefined) => void = () => {};
  /** A press on what may lead somewhere; true when it does. */
  onPress: (x: number, y: number) => boolean = () => false;
  onMark: (x: number, y: number) => void = () => {};
  /** How far the sheet is pulled past an end, −1 to 1 and beyond; 0 when it is not. */
  onPull: (share: number) => void = () => {};
  /** The page was pulled past its end, or in a seamless notebook scrolled past: where the view goes on for the next page, if it does. */
  onTurn: (by: number, view?: View) => void = () => {};
  /** Ink came to the page: how far down it lies, 0 to 1. */
  onInk: (down: number) => void = () => {};
  /** The box of the stroke written last. */
  lastInk: Area | undefined;
  readonly others: OthersInk;

  private readonly dry: DryInk;
  private readonly wet: WetInk;
  private readonly input: PenInput;
  private readonly sizes: ResizeObserver;
  private readonly neighbours: Neighbours;
  private view: View = { scale: 0, x: 0, y: 0 };
  private drawing: Drawing;
  private samples: number[] = [];
  private startedAt = 0;
  private doing: Tool['name'] = 'pen';
  private hasTilt = false;
  private strokeNumber = 0;
  private sent = 0;
  private sentAt = 0;
  private penSentAt = 0;
  private taking = false;
  private stopped = false;
  private fitting: Fitting | 'first' | undefined;
  private pull = 0;
  private pressedAt = { x: 0, y: 0 };
  private shownHandle: number;
  private readonly stopFollowing: () => void;

  constructor(
    private readonly holder: HTMLElement,
    private readonly core: Core,
    private readonly page: OpenDocument,
    private readonly live: Live,
    private readonly under: Under,
    private readonly mayWrite: boolean,
    private readonly room: Room,
    next: NextPages,
    startView?: View,
  ) {
    this.shownHandle = page.handle;
    this.neighbours = new Neighbours(holder, core, next);
    this.dry = new DryInk(holder);
    this.others = new OthersInk(holder);
    this.wet = new WetInk(holder);
    this.drawing = this.draw();
    this.input = new PenInput(holder, {
      mayWrite: () => this.mayWrite && this.tool.name !== 'read',
      begin: (...start) => this.begin(...start),
      move: (samples) => this.move(samples),
      end: () => this.end(),
      cancel: () => this.cancel(),
      hover: (x, y) => this.hover(x, y),
      tap: (x, y) => void this.onPress(x, y),
      hold: (x, y) => this.onPress(x, y),
      letGo: () => this.letGo(),
      zoomLocked: () => this.zoomLocked,
      view: () => this.view,
      setView: (view) => this.moveView(view),
    });
    if (startView) this.view = startView;
    this.sizes = new ResizeObserver(() => this.resize());
    this.sizes.observe(holder);
    this.resize();
    page.onWet = (...piece) => this.others.receive(...piece);
    page.onPen = (...place) => this.others.penAt(...place);
    page.onArrived = () => this.others.dried();
    this.stopFollowing = page.subscribe(() => this.takeChanged());
    // Everything counts as changed for a desk that is new.
    this.core.PageBridge.AllChanged(page.handle);
    this.takeChanged();
  }

  stop(): void {
    this.stopped = true;
    this.input.stop();
    this.sizes.disconnect();
    this.stopFollowing();
    this.others.stop();
    this.neighbours.stop();
    this.page.onWet = this.page.onPen = this.page.onArrived = undefined;
    this.holder.replaceChildren();
  }

  get currentView(): View {
    return this.view;
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

  /** Brings a part of the page into sight. */
  show([left, top, right, bottom]: Area): void {
    const { clientWidth, clientHeight } = this.holder;
    const { scale } = this.view;
    this.setView({ scale, x: clientWidth / 2 - ((left + right) / 2) * scale, y: Math.min(16 - this.drawing.sheet[1] * scale, clientHeight / 2 - ((top + bottom) / 2) * scale) });
  }

  /** The paper, its dates or its calendar changed, or the ink outgrew the sheet. */
  redraw(): void {
    this.drawing = this.draw();
    this.setView(this.view);
  }

  private draw(): Drawing {
    const { paper, space, notebook, asset } = this.under;
    const drawing = JSON.parse(this.core.PaperBridge.Draw(paper, this.page.handle, notebook.handle, notebook.id, this.page.id)) as Drawing;
    const sheetPaper = sheetPaperOf(drawing);
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
    this.view = keepInSight(view, this.drawing.sheet, this.holder.clientWidth, this.holder.clientHeight);
    this.dry.setView(this.view);
    this.others.setView(this.view);
    this.neighbours.setView(this.view, this.drawing.sheet);
    this.onView(this.view);
  }

  /** The hand moves the sheet: past an end it can be pulled, and in a seamless notebook the next sheet takes over. */
  private moveView(view: View): void {
    this.setView(view);
    const { scale, x, y } = this.view;
    const [left, top, right, bottom] = this.drawing.sheet;
    const { clientWidth, clientHeight } = this.holder;
    if (this.neighbours.isSeamless) {
      const turn = this.neighbours.passed(this.view, this.drawing.sheet, clientHeight);
      if (turn) this.onTurn(turn.by, turn.view);
      return;
    }
    const [start, end, size] = this.neighbours.isSideways ? [left * scale + x, right * scale + x, clientWidth] : [top * scale + y, bottom * scale + y, clientHeight];
    // The sheet's end has left the lower half, or its beginning the upper one: it is being pulled away. A short sheet ends higher up.
    const usualEnd = Math.min(size * 0.55, restingEdge + end - start);
    const past = end < usualEnd ? usualEnd - end : start > size * 0.45 ? size * 0.45 - start : 0;
    this.pull = past / pullToTurn;
    this.onPull(this.pull);
  }

  private letGo(): void {
    const { pull } = this;
    if (pull === 0) return;
    this.pull = 0;
    this.onPull(0);
    if (Math.abs(pull) >= 1) this.onTurn(Math.sign(pull));
  }

  private resize(): void {
    const { clientWidth, clientHeight } = this.holder;
    if (clientWidth === 0 || clientHeight === 0) return;
    this.dry.resize(clientWidth, clientHeight);
    this.wet.resize(clientWidth, clientHeight);
    this.others.resize(clientWidth, clientHeight);
    this.neighbours.resize(clientWidth, clientHeight);
    // What was fitted stays so beside another page or the contents; what a hand has moved stays where it is.
    if (this.view.scale === 0 || this.fitting === 'first') {
      this.setView(firstLook(this.drawing.sheet, clientWidth, clientHeight, this.room));
      this.fitting = 'first';
    } else if (this.fitting) this.fit(this.fitting);
    else this.setView(this.view);
  }

  private begin(sample: Sample, tail: boolean, hasTilt: boolean): void {
    this.onBegin();
    this.onTaken(undefined);
    this.doing = tail ? 'eraser' : this.tool.name;
    this.pressedAt = sample;
    this.hasTilt = hasTilt;
    this.samples = [];
    this.startedAt = Date.now();
    this.strokeNumber++;
    this.sent = 0;
    if (this.doing === 'eraser') {
      const { whole, size } = this.tool.name === 'eraser' ? this.tool : { whole: false, size: 300 };
      this.core.PageBridge.BeginErase(this.page.handle, size / 2, whole);
    } else if (this.tool.name === 'pen') this.wet.begin(this.tool.pen, this.view);
    else if (this.doing === 'loop' || this.doing === 'box') this.wet.begin(loopPen, this.view);
    this.move([sample]);
  }

  private move(samples: Sample[]): void {
    if (this.doing === 'eraser') {
      const spots = new Float64Array(samples.flatMap(({ x, y }) => [x, y]));
      this.dry.show(readPacket(this.core.PageBridge.EraseAlong(this.page.handle, spots)));
      this.tellCount();
      return;
    }
    if (this.tool.name === 'loop' || this.tool.name === 'box') this.drawLoop(samples);
    if (this.tool.name !== 'pen') return;
    if (this.samples.length > mostSamples * channels) {
      // A line drawn for minutes goes on as a second stroke, since one stroke has only so many samples.
      this.end();
      this.samples = [];
      this.sent = 0;
      this.strokeNumber++;
      this.wet.begin(this.tool.pen, this.view);
    }
    for (const sample of samples) {
      const { x, y } = this.neighbours.isSeamless ? this.withinSheet(sample) : sample;
      this.samples.push(x, y, sample.pressure, sample.time, sample.tiltX, sample.tiltY);
      this.wet.add(this.tool.pen, x, y, sample.pressure);
    }
    if (performance.now() - this.sentAt >= pieceEvery) this.sendPiece(false);
  }

  /** In a seamless notebook ink never runs over to the next sheet. */
  private withinSheet({ x, y }: { x: number; y: number }): { x: number; y: number } {
    const [left, top, right, bottom] = this.drawing.sheet;
    return { x: Math.min(Math.max(x, left), right), y: Math.min(Math.max(y, top), bottom) };
  }

  private drawLoop(samples: Sample[]): void {
    const last = samples.at(-1)!;
    if (this.doing === 'box') {
      const [startX = last.x, startY = last.y] = this.samples;
      this.samples = [startX, startY, last.x, startY, last.x, last.y, startX, last.y];
      this.wet.clear();
      this.wet.begin(loopPen, this.view);
      for (let i = 0; i <= 8; i += 2) this.wet.add(loopPen, this.samples[i % 8]!, this.samples[(i % 8) + 1]!, 512);
      return;
    }
    for (const { x, y } of samples) {
      this.samples.push(x, y);
      this.wet.add(loopPen, x, y, 512);
    }
  }

  private end(): void {
    if (this.doing === 'eraser') {
      this.page.perform((handle, now) => this.core.PageBridge.EndErase(handle, now));
      return;
    }
    if (this.tool.name === 'mark') return this.onMark(this.pressedAt.x, this.pressedAt.y);
    if (this.tool.name === 'loop' || this.tool.name === 'box') return this.take(this.tool.share);
    if (this.tool.name !== 'pen') return;
    const { pen } = this.tool;
    this.page.perform((handle, now) =>
      this.core.PageBridge.AddStroke(
        handle, penKindNumbers[pen.kind], pen.width, toRgba(pen.colour), Int32Array.from(this.samples), this.hasTilt, this.startedAt, now,
      ),
    );
    this.wet.clear();
    this.sendPiece(true);
    const [xs, ys] = [0, 1].map((channel) => this.samples.filter((_, i) => i % channels === channel)) as [number[], number[]];
    this.lastInk = [least(xs), least(ys), most(xs), most(ys)];
    const [, top, , bottom] = this.drawing.sheet;
    this.onInk((this.lastInk[3] - top) / (bottom - top));
  }

  /** Ends a loop: the ink in it, or where there is none, the part of the page it goes round. */
  private take(share: number): void {
    this.wet.clear();
    const loop = this.samples;
    if (loop.length < 6) return;
    const items = this.core.SpotBridge.Select(this.page.handle, new Float64Array(loop), share);
    const xs = loop.filter((_, i) => i % 2 === 0);
    const ys = loop.filter((_, i) => i % 2 === 1);
    const round: Area = [least(xs), least(ys), most(xs), most(ys)];
    const area = items.length > 0 ? (this.core.SpotBridge.BoundsOf(this.page.handle, items) as unknown as Area) : round;
    if (items.length > 0 || (round[2] - round[0] > leastTaken && round[3] - round[1] > leastTaken)) this.onTaken({ items, area });
  }

  private cancel(): void {
    if (this.doing === 'eraser') this.page.perform((handle, now) => this.core.PageBridge.EndErase(handle, now));
    else this.sendPiece(true);
    this.wet.clear();
    this.samples = [];
  }

  private hover(x: number, y: number): void {
    const now = performance.now();
    if (!this.mayWrite || now - this.penSentAt < penEvery) return;
    this.penSentAt = now;
    this.live.pen(this.page.id, x, y);
  }

  private sendPiece(ends: boolean): void {
    if (this.tool.name !== 'pen' || this.doing !== 'pen') return;
    const news: number[] = [];
    for (; this.sent < this.samples.length; this.sent += channels) news.push(...this.samples.slice(this.sent, this.sent + 3));
    this.sentAt = performance.now();
    this.live.wet(this.page.id, encodePiece(this.strokeNumber, this.tool.pen, ends, news));
  }

  /** Takes from Core what has changed, in slices, so that a full page does not hold up the pen. */
  private takeChanged(): void {
    if (this.taking) return;
    if (this.shownHandle !== this.page.handle) this.dry.clear();
    this.shownHandle = this.page.handle;
    const until = performance.now() + sliceMilliseconds;
    for (;;) {
      const items = readPacket(this.core.PageBridge.TakeChanged(this.page.handle, itemsASlice));
      this.dry.show(items);
      if (items.length < itemsASlice) break;
      if (performance.now() > until) {
        this.taking = true;
        soon(() => {
          this.taking = false;
          if (!this.stopped) this.takeChanged();
        });
        return;
      }
    }
    this.grow();
    this.tellCount();
  }

  /** An endless page gets more sheet when its ink needs it. */
  private grow(): void {
    if (!/-(down|around)(-|$)/.test(this.under.paper)) return;
    const sheet = this.core.PaperBridge.Sheet(this.under.paper, this.page.handle);
    if (sheet.some((edge, i) => edge !== this.drawing.sheet[i])) this.redraw();
  }

  private tellCount(): void {
    this.holder.dataset.strokes = String(this.dry.strokeCount);
  }
}

// Not by spreading into Math.min: a line can have more samples than a call takes arguments.
const least = (values: number[]) => values.reduce((a, b) => (b < a ? b : a), Infinity);
const most = (values: number[]) => values.reduce((a, b) => (b > a ? b : a), -Infinity);
