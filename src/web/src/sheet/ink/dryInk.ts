import { type Box, meets, union } from './boxes';
import type { Brush } from './grain';
import { Pace } from './pace';
import { canvasIn, pixelRatio, sizeCanvas } from './canvases';
import { type InkItem, paintItem } from './packet';
import { ShownItems } from './shownItems';
import { paintSheet, type SheetPaper } from './sheetPaper';
import { soon } from './soon';
import { Sprite } from './sprite';
import type { View } from './view';

/** A picture that is being zoomed is painted anew when it rests so long, and once in so long while it does not, milliseconds. */
const rest = 110;
const mostStale = 260;
/** What was shown a fraction of a pixel off is painted anew after so long, milliseconds. */
const sharpAfter = 60;

/**
 * Paints the ink that is on the page, behind the pen. A whole repaint goes into a second canvas in short slices and is then swapped in; until
 * then the standing picture is scaled. One that is only moved stays, and what comes into sight at its edges is painted. A single change
 * repaints its box only.
 */
export class DryInk {
  private readonly items = new ShownItems();
  private paper: SheetPaper = { sheet: [0, 0, 21000, 29700], ground: '#fffdf7', layers: [], under: [] };
  private view: View = { scale: 0.03, x: 0, y: 0 };
  private painted: View = this.view;
  /** A whole repaint under way: of what was there when it began, then of what has come or changed since. */
  private painting: { next: number; view: View; items: InkItem[]; over: InkItem[]; dirty: Box | undefined } | undefined;
  private front: HTMLCanvasElement;
  private back: HTMLCanvasElement;
  private ratio = 1;
  private width = 0;
  private height = 0;
  private lifted: ReadonlySet<string> = new Set();
  private readonly whenDone: (() => void)[] = [];
  private tint: ((colour: string) => string) | undefined;

  private readonly pace = new Pace();
  private resting: ReturnType<typeof setTimeout> | undefined;
  private wholeAt = 0;
  private held = false;
  private owed = false;
  private waiting: Box | undefined;
  private sprite: Sprite | undefined;
  private awaited: ReadonlySet<string> | undefined;
  private sharpening = false;
  /** A whole picture is owed, or is there again. */
  onPainting: () => void = () => {};

  constructor(holder: HTMLElement) {
    this.front = canvasIn(holder);
    this.back = canvasIn(holder);
    this.back.style.visibility = 'hidden';
  }

  /** Whether a whole picture is owed. */
  get isPainting(): boolean {
    return this.painting !== undefined || this.resting !== undefined || this.owed;
  }

  /** Whether what is seen is right but for its sharpness. */
  get isSharpening(): boolean {
    return this.sharpening;
  }

  /** The box around all ink that is shown, or was since the page was opened; 0.01 mm. */
  get box(): Box | undefined {
    return this.items.box;
  }

  /** How many strokes are shown. */
  get strokeCount(): number {
    return this.items.all.length;
  }

  /** Whether it has another size now, or the screen another number of pixels; what is painted already is painted once. */
  needsSize(width: number, height: number): boolean {
    return this.width !== width || this.height !== height || this.ratio !== pixelRatio();
  }

  resize(width: number, height: number): void {
    this.dropSprite();
    this.ratio = pixelRatio();
    this.width = width;
    this.height = height;
    for (const canvas of [this.front, this.back]) sizeCanvas(canvas, width, height);
    this.repaint();
  }

  setPaper(paper: SheetPaper): void {
    this.paper = paper;
    this.repaint();
  }

  /** What floats above the page, or was not written yet, is left out. */
  lift(items: ReadonlySet<string>): void {
    // What is left out is not in the picture of all either.
    if (items.size > 0) this.dropSprite();
    let dirty: Box | undefined;
    for (const item of this.items.all)
      if (items.has(item.id) !== this.lifted.has(item.id)) dirty = union(dirty, item.box);
    this.lifted = items;
    if (dirty) this.paintBox(dirty);
  }

  /** Once no repaint is under way: at once, or later. */
  whenPainted(then: () => void): void {
    if (this.painting) this.whenDone.push(then);
    else then();
  }

  /** How stored colours are shown: as they are, or adapted to dark paper. */
  setTint(tint: ((colour: string) => string) | undefined): void {
    if (this.tint === tint) return;
    this.dropSprite();
    this.tint = tint;
    this.repaint();
  }

  /** The foremost colour painted at a place, as it is stored. */
  colourAt(x: number, y: number): string | undefined {
    const context = this.front.getContext('2d')!;
    context.save();
    context.resetTransform();
    const colour = this.items.colourAt(x, y, (path, px, py) => context.isPointInPath(path, px, py));
    context.restore();
    return colour;
  }

  setView(view: View): void {
    this.view = view;
    if (this.slide(view)) return;
    const grown = view.scale / this.painted.scale;
    this.front.style.transform = `translate(${view.x - this.painted.x * grown}px, ${view.y - this.painted.y * grown}px) scale(${grown})`;
    if (!this.painting) this.repaintSoon();
  }

  /** Moves the standing picture by whole pixels and paints what has come into sight, where that is little. */
  private slide(view: View): boolean {
    if (view.scale !== this.painted.scale) return false;
    const { width, height } = this.front;
    const dx = Math.round((view.x - this.painted.x) * this.ratio);
    const dy = Math.round((view.y - this.painted.y) * this.ratio);
    const strips: Box[] = [];
    if (dx !== 0) strips.push(dx > 0 ? [0, 0, dx, height] : [width + dx, 0, width, height]);
    if (dy !== 0) strips.push(dy > 0 ? [0, 0, width, dy] : [0, height + dy, width, height]);
    if (Math.abs(dx) >= width || Math.abs(dy) >= height) return false;
    const shown = strips.map((strip) => this.onPage(strip, view));
    if (!this.pace.affords(shown.reduce((sum, box) => sum + this.items.inkIn(box), 0))) return false;
    this.front.style.transform = '';
    if (strips.length === 0) return true;
    const context = this.front.getContext('2d')!;
    context.save();
    context.resetTransform();
    context.globalCompositeOperation = 'copy';
    context.drawImage(this.front, dx, dy);
    context.restore();
    this.painted = view;
    for (const strip of strips) this.paintPixels(strip);
    return true;
  }

  private repaintSoon(): void {
    clearTimeout(this.resting);
    if (performance.now() - this.wholeAt > mostStale) return this.repaint();
    this.resting = setTimeout(() => this.repaint(), rest);
    this.onPainting();
  }

  /** A picture is there, or in more dots than before. */
  paintAgain(asset: string): void {
    const box = this.items.boxOf(asset);
    if (box) this.paintBox(box);
  }

  clear(): void {
    this.items.clear();
    this.repaint();
  }

  /** What is shown of an id. */
  readonly find = (id: string): InkItem | undefined => this.items.find(id);

  /** The items of these that are shown, in painting order. */
  itemsOf(ids: readonly string[]): InkItem[] {
    return this.items.of(ids);
  }

  /** Something may soon be done to these: where they are all there is, a picture of them is made ready. */
  anticipate(ids: ReadonlySet<string> | undefined): void {
    this.awaited = ids;
    this.dropSprite();
    this.whenPainted(() => this.makeSprite());
  }

  private dropSprite(): void {
    this.sprite?.stop();
    this.sprite = undefined;
  }

  private makeSprite(): void {
    const { awaited, painted } = this;
    const sorted = this.items.all;
    if (!awaited || this.sprite?.view.scale === painted.scale) return;
    if (sorted.length === 0 || !sorted.every((item) => awaited.has(item.id))) return;
    const scale = painted.scale * this.ratio;
    const seen = this.seen(painted);
    this.dropSprite();
    this.sprite = new Sprite(
      sorted.slice(),
      painted,
      [this.front.width, this.front.height],
      (context, item) => {
        context.setTransform(scale, 0, 0, scale, painted.x * this.ratio, painted.y * this.ratio);
        return this.fill(context, item, seen);
      },
      this.pace,
    );
  }

  /** Shows all ink as it lies and looks now by the picture that was made ready of it; the page is painted anew right after. */
  private showSprite(): boolean {
    const { sprite, painted } = this;
    if (!sprite?.isReady || this.held || this.lifted.size > 0) return false;
    const { scale, x, y } = this.view;
    if (scale !== sprite.view.scale || painted.scale !== scale || painted.x !== x || painted.y !== y) return false;
    const moved = sprite.follow(this.items.all, this.tint ?? ((colour) => colour));
    if (!moved) {
      // It is of before, and is made anew once the page is painted.
      this.dropSprite();
      return false;
    }

    const context = this.context(this.front, painted);
    context.save();
    context.resetTransform();
    context.clearRect(0, 0, this.front.width, this.front.height);
    context.restore();
    this.paintPaper(context);
    sprite.paintOn(context, painted, this.ratio, moved);
    // What is being painted is of before.
    this.painting = undefined;
    this.sharpening = true;
    clearTimeout(this.resting);
    this.resting = setTimeout(() => this.repaint(), sharpAfter);
    this.onPainting();
    return true;
  }

  /** Shows items otherwise before Core says so. */
  change(ids: ReadonlySet<string>, how: (item: InkItem) => InkItem): void {
    const dirty = this.items.change(ids, how);
    if (dirty && !this.showSprite()) this.paintBox(dirty);
  }

  /** Takes items in their present look. Additions on top are painted over; anything else repaints its box. */
  show(packet: InkItem[]): void {
    const { dirty, over } = this.items.take(packet);
    if (dirty) this.paintBox(over.reduce((box, item) => union(box, item.box), dirty));
    else {
      this.paintOver(over);
      this.painting?.over.push(...over);
    }
  }

  /** While more changes are on their way, a whole picture waits for them. */
  hold(held: boolean): void {
    this.held = held;
    if (held) return;
    const { waiting } = this;
    this.waiting = undefined;
    if (this.owed) this.repaint();
    else if (waiting) this.paintBox(waiting);
  }

  private repaint(): void {
    this.owed = this.held;
    if (this.held) return;
    const starting = this.painting === undefined;
    this.pace.enlarge(this.view.scale / (this.painting?.view ?? this.painted).scale);
    this.painting = { next: -1, view: this.view, items: this.items.all.slice(), over: [], dirty: undefined };
    clearTimeout(this.resting);
    this.resting = undefined;
    this.onPainting();
    if (starting) this.slice();
  }

  private slice(): void {
    const painting = this.painting;
    if (!painting) return;
    const context = this.context(this.back, painting.view);
    if (painting.next < 0) {
      context.save();
      context.resetTransform();
      context.clearRect(0, 0, this.back.width, this.back.height);
      context.restore();
      this.paintPaper(context);
      painting.next = 0;
    }
    const seen = this.seen(painting.view);
    const { items } = painting;
    const still = this.view.scale === this.painted.scale;
    painting.next = this.pace.run(this.back, items, painting.next, (item) => this.fill(context, item, seen), still);
    if (painting.next < items.length) {
      soon(() => this.slice());
      return;
    }
    this.painting = undefined;
    this.sharpening = false;
    this.wholeAt = performance.now();
    [this.front, this.back] = [this.back, this.front];
    this.painted = painting.view;
    this.front.style.visibility = 'visible';
    this.back.style.visibility = 'hidden';
    const moved = this.view !== painting.view;
    this.front.style.transform = '';
    this.paintOver(painting.over);
    if (painting.dirty) this.paintBox(painting.dirty);
    if (moved) this.setView(this.view);
    if (this.painting) return;
    this.makeSprite();
    this.onPainting();
    for (const then of this.whenDone.splice(0)) then();
  }

  private paintOver(items: InkItem[]): void {
    const context = this.context(this.front, this.painted);
    const seen = this.seen(this.painted);
    for (const item of items) this.fill(context, item, seen);
  }

  /** Repaints a box, widened to whole pixels, so that no seam is left at its edge. One with very much ink in it waits for a whole repaint. */
  private paintBox(box: Box): void {
    if (this.held) {
      this.waiting = union(this.waiting, box);
      return;
    }
    const isFull = !this.pace.affords(this.items.inkIn(box));
    if (this.painting) this.painting.dirty = union(this.painting.dirty, box);
    else if (isFull) this.repaint();
    if (isFull) return;
    const { scale, x, y } = this.painted;
    const unit = scale * this.ratio;
    const [left, top] = [
      Math.floor(box[0] * unit + x * this.ratio) - 2,
      Math.floor(box[1] * unit + y * this.ratio) - 2,
    ];
    const [right, bottom] = [
      Math.ceil(box[2] * unit + x * this.ratio) + 2,
      Math.ceil(box[3] * unit + y * this.ratio) + 2,
    ];
    this.paintPixels([left, top, right, bottom]);
  }

  /** Repaints a part of the standing picture, in its pixels. */
  private paintPixels(pixels: Box): void {
    const [left, top, right, bottom] = pixels;
    const context = this.context(this.front, this.painted);
    context.save();
    context.save();
    context.resetTransform();
    context.beginPath();
    context.rect(left, top, right - left, bottom - top);
    context.clearRect(left, top, right - left, bottom - top);
    context.restore();
    context.clip();
    this.paintPaper(context);
    const { width, height } = this.front;
    const seen = this.onPage(
      [Math.max(0, left), Math.max(0, top), Math.min(width, right), Math.min(height, bottom)],
      this.painted,
    );
    for (const item of this.items.all) this.fill(context, item, seen);
    context.restore();
  }

  /** Where pixels of the picture lie on the page. */
  private onPage([left, top, right, bottom]: Box, { scale, x, y }: View): Box {
    return [
      (left / this.ratio - x) / scale,
      (top / this.ratio - y) / scale,
      (right / this.ratio - x) / scale,
      (bottom / this.ratio - y) / scale,
    ];
  }

  private fill(context: Brush, item: InkItem, seen: Box): boolean {
    if (!meets(item.box, seen) || this.lifted.has(item.id)) return false;
    paintItem(context, item, this.tint, seen);
    return true;
  }

  private paintPaper(context: CanvasRenderingContext2D): void {
    paintSheet(context, this.paper, 1 / (this.painted.scale * this.ratio));
  }

  private context(canvas: HTMLCanvasElement, view: View): CanvasRenderingContext2D {
    const context = canvas.getContext('2d')!;
    const scale = view.scale * this.ratio;
    context.setTransform(scale, 0, 0, scale, view.x * this.ratio, view.y * this.ratio);
    return context;
  }

  private seen(view: View): Box {
    return this.onPage([0, 0, this.front.width, this.front.height], view);
  }
}
