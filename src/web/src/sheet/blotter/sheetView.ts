import type { Area } from '../../model/drawing';
import type { SheetEvents } from '../hand/events';
import type { Neighbours } from '../ink/neighbours';
import { pixelRatio } from '../ink/canvases';
import {
  firstLook,
  type Fitting,
  fitted,
  keepInSight,
  type Room,
  snapped,
  toPage,
  type View,
  zoomAt,
} from '../ink/view';

/** So far past its end a sheet is pulled to turn the page, pixels. */
const pullToTurn = 96;
/** Where a sheet's beginning lies when it is fitted, pixels. */
const restingEdge = 16;
/** What is brought into sight keeps so far from the edges. */
const revealEdge = 24;

/** What is looked at. */
interface Looked {
  sheet(): Area;
  /** The box of all ink; undefined where there is none. */
  ink(): Area | undefined;
  neighbours(): Neighbours;
  /** What stands over the desk at its sides. */
  room(): Room;
  events(): SheetEvents;
  /** It lies elsewhere, or is seen larger or smaller. */
  shown(view: View): void;
}

/** How a page is looked at: where it lies on the screen, how large, and how far it is pulled past its end to turn it. */
export class SheetView {
  private view: View = { scale: 0, x: 0, y: 0 };
  /** The same as the hand has it, which moves by less than a pixel too. */
  private exactly: View = this.view;
  private fitting: Fitting | 'first' | undefined;
  private pull = 0;
  /** Which ends of the sheet were in sight when the pull that goes on began. */
  private pulledFrom: { start: boolean; end: boolean } | undefined;

  constructor(
    private readonly holder: HTMLElement,
    private readonly of: Looked,
    start: View | undefined,
  ) {
    if (start) this.view = this.exactly = start;
  }

  get now(): View {
    return this.view;
  }

  get exact(): View {
    return this.exactly;
  }

  /** Whether a hand, or a link, has put it where it lies. */
  get isMoved(): boolean {
    return this.fitting === undefined;
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
    return toPage({ clientX, clientY }, this.holder.getBoundingClientRect(), this.view);
  }

  set(view: View): void {
    this.fitting = undefined;
    this.exactly = keepInSight(view, this.reach, this.holder.clientWidth, this.holder.clientHeight);
    this.view = snapped(this.exactly, pixelRatio());
    this.of.shown(this.view);
  }

  /** Looks at the page exactly so, however little of it that shows. */
  look(view: View): void {
    this.view = this.exactly = snapped(view, pixelRatio());
    this.of.shown(this.view);
  }

  fit(fitting: Fitting): void {
    const { clientWidth, clientHeight } = this.holder;
    this.set(fitted(fitting, this.of.sheet(), clientWidth, clientHeight, this.of.room()));
    this.fitting = fitting;
  }

  zoomBy(factor: number): void {
    const { clientWidth, clientHeight } = this.holder;
    this.set(zoomAt(this.view, factor, clientWidth / 2, clientHeight / 2));
  }

  zoomTo(scale: number): void {
    this.zoomBy(scale / this.view.scale);
  }

  /** Brings a part of the page into sight. */
  show([left, top, right, bottom]: Area): void {
    const { clientWidth, clientHeight } = this.holder;
    const { scale } = this.view;
    this.set({
      scale,
      x: clientWidth / 2 - ((left + right) / 2) * scale,
      y: Math.min(restingEdge - this.of.sheet()[1] * scale, clientHeight / 2 - ((top + bottom) / 2) * scale),
    });
  }

  /** Moves the page no more than it takes to have a part of it in sight, above so many pixels at the foot that are covered. */
  reveal([left, top, right, bottom]: Area, covered: number): void {
    const { clientWidth, clientHeight } = this.holder;
    const { scale, x, y } = this.view;
    const within = (from: number, to: number, now: number, room: number) =>
      Math.max(revealEdge - from * scale, Math.min(now, room - revealEdge - to * scale));
    const next = { scale, x: within(left, right, x, clientWidth), y: within(top, bottom, y, clientHeight - covered) };
    if (next.x !== x || next.y !== y) this.set(next);
  }

  /** The desk has another size, or less of it is free: what was fitted stays so; what a hand has moved stays where it is. */
  layOut(): void {
    const { clientWidth, clientHeight } = this.holder;
    if (this.view.scale === 0 || this.fitting === 'first') {
      this.set(firstLook(this.of.sheet(), clientWidth, clientHeight, this.of.room()));
      this.fitting = 'first';
    } else if (this.fitting) this.fit(this.fitting);
    else this.set(this.view);
  }

  /** The hand moves the sheet: past an end it can be pulled, and in a seamless notebook the next sheet takes over. */
  move(view: View): void {
    this.pulledFrom ??= this.endsHere();
    this.set(view);
    const neighbours = this.of.neighbours();
    if (neighbours.isSeamless) {
      const turn = neighbours.passed(this.view, this.of.sheet(), this.holder.clientHeight);
      if (turn) this.of.events().turned(turn.by, { meant: false, view: turn.view });
      return;
    }
    const { start, end, size } = this.extent();
    // The sheet's end has left the lower half, or its beginning the upper one: it is being pulled away. A short sheet ends higher up.
    const usualEnd = Math.min(size * 0.55, restingEdge + end - start);
    const past = end < usualEnd ? usualEnd - end : start > size * 0.45 ? size * 0.45 - start : 0;
    this.pull = past / pullToTurn;
    this.of.events().pulled(this.pull, this.pull > 0 ? this.pulledFrom.end : this.pulledFrom.start);
  }

  /** The hand lets go after moving the sheet; a wheel has no letting go, and each turn of it stands for both. */
  letGo(byWheel: boolean): void {
    const { pull, pulledFrom } = this;
    if (!byWheel) this.exactly = this.view;
    this.pulledFrom = undefined;
    if (pull === 0 || !pulledFrom) return;
    this.pull = 0;
    this.of.events().pulled(0, false);
    // Turning a wheel on and on is scrolling, and never meant to make anything.
    if (Math.abs(pull) >= 1)
      this.of.events().turned(Math.sign(pull), { meant: !byWheel && (pull > 0 ? pulledFrom.end : pulledFrom.start) });
  }

  /** The sheet with what lies beyond it: all that can be come to. */
  private get reach(): Area {
    const sheet = this.of.sheet();
    const box = this.of.ink();
    return box && !this.of.neighbours().isSeamless
      ? [Math.min(sheet[0], box[0]), Math.min(sheet[1], box[1]), Math.max(sheet[2], box[2]), Math.max(sheet[3], box[3])]
      : sheet;
  }

  /** Where the sheet begins and ends on the screen, along the way in which pages follow each other, and how much of that is seen; pixels. */
  private extent(): { start: number; end: number; size: number } {
    const { scale, x, y } = this.view;
    const [left, top, right, bottom] = this.reach;
    const { clientWidth, clientHeight } = this.holder;
    return this.of.neighbours().isSideways
      ? { start: left * scale + x, end: right * scale + x, size: clientWidth }
      : { start: top * scale + y, end: bottom * scale + y, size: clientHeight };
  }

  private endsHere(): { start: boolean; end: boolean } {
    const { start, end, size } = this.extent();
    return { start: start >= 0, end: end <= size };
  }
}
