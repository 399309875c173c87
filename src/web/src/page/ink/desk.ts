import type { Core } from '../../core/runtime';
import type { Live } from '../../sync/live';
import type { OpenDocument } from '../../sync/openDocument';
import { DryInk } from './dryInk';
import { encodePiece, OthersInk } from './othersInk';
import { readPacket } from './packet';
import { PenInput, type Sample } from './penInput';
import { type Pen, penKindNumbers, toRgba } from './pens';
import { soon } from './soon';
import { fitWidth, keepInSight, type Room, type View } from './view';
import { WetInk } from './wetInk';

/** What is in the hand. */
export type Tool = { name: 'pen'; pen: Pen } | { name: 'eraser'; whole: boolean; /** Diameter, 0.01 mm. */ size: number };

const itemsASlice = 150;
const sliceMilliseconds = 30;
const pieceEvery = 25;
const penEvery = 60;
const channels = 6;
const mostSamples = 40_000;

/** The sheet on the desk: joins the hand, Core and the canvases for one page. Lives outside React, since it works at the pen's speed. */
export class SheetDesk {
  tool: Tool = { name: 'pen', pen: { kind: 'ball', width: 40, colour: '#22302e' } };
  onView: (view: View) => void = () => {};
  onBegin: () => void = () => {};
  readonly others: OthersInk;

  private readonly dry: DryInk;
  private readonly wet: WetInk;
  private readonly input: PenInput;
  private readonly sizes: ResizeObserver;
  private view: View = { scale: 0, x: 0, y: 0 };
  private paper: { width: number; height: number };
  private samples: number[] = [];
  private startedAt = 0;
  private erasing = false;
  private hasTilt = false;
  private strokeNumber = 0;
  private sent = 0;
  private sentAt = 0;
  private penSentAt = 0;
  private taking = false;
  private stopped = false;
  private fitted = false;
  private shownHandle: number;
  private readonly stopFollowing: () => void;

  constructor(
    private readonly holder: HTMLElement,
    private readonly core: Core,
    private readonly page: OpenDocument,
    private readonly live: Live,
    paper: string,
    private readonly mayWrite: boolean,
    private readonly room: Room,
  ) {
    this.shownHandle = page.handle;
    this.dry = new DryInk(holder);
    this.others = new OthersInk(holder);
    this.wet = new WetInk(holder);
    const [width, height, ...lines] = core.PageBridge.PaperLines(paper);
    this.paper = { width: width!, height: height! };
    this.dry.setPaper({ width: width!, height: height!, lines });
    this.input = new PenInput(holder, {
      mayWrite: () => this.mayWrite,
      begin: (...start) => this.begin(...start),
      move: (samples) => this.move(samples),
      end: () => this.end(),
      cancel: () => this.cancel(),
      hover: (x, y) => this.hover(x, y),
      view: () => this.view,
      setView: (view) => this.setView(view),
    });
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
    this.page.onWet = this.page.onPen = this.page.onArrived = undefined;
    this.holder.replaceChildren();
  }

  get currentView(): View {
    return this.view;
  }

  fit(): void {
    const { clientWidth, clientHeight } = this.holder;
    this.setView(fitWidth(this.paper.width, clientWidth, clientHeight, this.paper.height, this.room));
    this.fitted = true;
  }

  zoomBy(factor: number): void {
    const { clientWidth, clientHeight } = this.holder;
    const { scale, x, y } = this.view;
    const [cx, cy] = [clientWidth / 2, clientHeight / 2];
    this.setView({ scale: scale * factor, x: cx - (cx - x) * factor, y: cy - (cy - y) * factor });
  }

  private setView(view: View): void {
    this.fitted = false;
    this.view = keepInSight(view, this.paper.width, this.paper.height, this.holder.clientWidth, this.holder.clientHeight);
    this.dry.setView(this.view);
    this.others.setView(this.view);
    this.onView(this.view);
  }

  private resize(): void {
    const { clientWidth, clientHeight } = this.holder;
    if (clientWidth === 0 || clientHeight === 0) return;
    this.dry.resize(clientWidth, clientHeight);
    this.wet.resize(clientWidth, clientHeight);
    this.others.resize(clientWidth, clientHeight);
    // What was fitted stays so beside another page or the contents; what a hand has moved stays where it is.
    if (this.view.scale === 0 || this.fitted) this.fit();
    else this.setView(this.view);
  }

  private begin(sample: Sample, tail: boolean, hasTilt: boolean): void {
    this.onBegin();
    this.erasing = tail || this.tool.name === 'eraser';
    this.hasTilt = hasTilt;
    this.samples = [];
    this.startedAt = Date.now();
    this.strokeNumber++;
    this.sent = 0;
    if (this.erasing) {
      const { whole, size } = this.tool.name === 'eraser' ? this.tool : { whole: false, size: 300 };
      this.core.PageBridge.BeginErase(this.page.handle, size / 2, whole);
    } else if (this.tool.name === 'pen') this.wet.begin(this.tool.pen, this.view);
    this.move([sample]);
  }

  private move(samples: Sample[]): void {
    if (this.erasing) {
      const spots = new Float64Array(samples.flatMap(({ x, y }) => [x, y]));
      this.dry.show(readPacket(this.core.PageBridge.EraseAlong(this.page.handle, spots)));
      this.tellCount();
      return;
    }
    if (this.tool.name !== 'pen') return;
    if (this.samples.length > mostSamples * channels) {
      // A line drawn for minutes goes on as a second stroke, since one stroke has only so many samples.
      this.end();
      this.samples = [];
      this.sent = 0;
      this.strokeNumber++;
      this.wet.begin(this.tool.pen, this.view);
    }
    for (const { x, y, pressure, time, tiltX, tiltY } of samples) {
      this.samples.push(x, y, pressure, time, tiltX, tiltY);
      this.wet.add(this.tool.pen, x, y, pressure);
    }
    if (performance.now() - this.sentAt >= pieceEvery) this.sendPiece(false);
  }

  private end(): void {
    if (this.erasing) {
      this.page.perform((handle, now) => this.core.PageBridge.EndErase(handle, now));
      return;
    }
    if (this.tool.name !== 'pen') return;
    const { pen } = this.tool;
    this.page.perform((handle, now) =>
      this.core.PageBridge.AddStroke(
        handle, penKindNumbers[pen.kind], pen.width, toRgba(pen.colour), Int32Array.from(this.samples), this.hasTilt, this.startedAt, now,
      ),
    );
    this.wet.clear();
    this.sendPiece(true);
  }

  private cancel(): void {
    if (this.erasing) this.page.perform((handle, now) => this.core.PageBridge.EndErase(handle, now));
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
    if (this.tool.name !== 'pen') return;
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
    this.tellCount();
  }

  private tellCount(): void {
    this.holder.dataset.strokes = String(this.dry.strokeCount);
  }
}
