import type { Pace } from './pace';
import { areSame, type Coat, type InkItem } from './packet';
import { soon } from './soon';
import type { View } from './view';

/** What an item looked like when the picture was painted. */
interface Base {
  path: Path2D;
  below: readonly Coat[];
  dx: number;
  dy: number;
  colour: string;
}

/**
 * A picture of all ink by itself, without paper, painted ahead while it is selected: when all of it is moved, or given another colour, it shows that in
 * the next frame, a fraction of a pixel off, until the page is painted anew.
 */
export class Sprite {
  readonly view: View;
  private readonly canvas: OffscreenCanvas;
  private readonly base = new Map<string, Base>();
  isReady = false;
  private stopped = false;

  constructor(
    items: readonly InkItem[],
    view: View,
    [width, height]: readonly [number, number],
    paint: (context: OffscreenCanvasRenderingContext2D, item: InkItem) => boolean,
    pace: Pace,
  ) {
    this.view = view;
    this.canvas = new OffscreenCanvas(width, height);
    for (const { id, path, below, dx, dy, colour } of items) this.base.set(id, { path, below, dx, dy, colour });
    const context = this.canvas.getContext('2d')!;
    let next = 0;
    const slice = () => {
      if (this.stopped) return;
      next = pace.run(this.canvas, items, next, (item) => paint(context, item));
      if (next < items.length) soon(slice);
      else this.isReady = true;
    };
    soon(slice);
  }

  stop(): void {
    this.stopped = true;
  }

  /** Takes on the look of these items, where they are those that were painted, moved all alike, and with another colour only all at once. How far they were moved; undefined when it cannot show them. */
  follow(items: readonly InkItem[], tint: (colour: string) => string): { dx: number; dy: number } | undefined {
    const [first] = items;
    const start = first && this.base.get(first.id);
    if (!start || items.length !== this.base.size) return undefined;
    const [dx, dy] = [first.dx - start.dx, first.dy - start.dy];
    let isColoured = false;
    let mayBeColoured = true;
    for (const item of items) {
      const base = this.base.get(item.id);
      if (!base || base.path !== item.path || !areSame(base.below, item.below)) return undefined;
      if (item.texts.length + item.pictures.length > 0) return undefined;
      if (item.dx - base.dx !== dx || item.dy - base.dy !== dy) return undefined;
      isColoured ||= item.colour !== base.colour;
      mayBeColoured &&=
        item.colour === first.colour && alphaOf(item.colour) === alphaOf(base.colour) && item.below.length === 0;
    }
    if (isColoured && !mayBeColoured) return undefined;
    if (isColoured) this.colour(first.colour, tint);
    return { dx, dy };
  }

  /** Puts it onto a canvas that has another view of the same scale. */
  paintOn(context: CanvasRenderingContext2D, view: View, ratio: number, { dx, dy }: { dx: number; dy: number }): void {
    context.save();
    context.resetTransform();
    context.drawImage(
      this.canvas,
      (view.x - this.view.x + dx * view.scale) * ratio,
      (view.y - this.view.y + dy * view.scale) * ratio,
    );
    context.restore();
  }

  /** Where there is ink, as much as there is stays. */
  private colour(colour: string, tint: (colour: string) => string): void {
    const context = this.canvas.getContext('2d')!;
    context.save();
    context.resetTransform();
    context.globalCompositeOperation = 'source-in';
    context.fillStyle = tint(colour).slice(0, opaque);
    context.fillRect(0, 0, this.canvas.width, this.canvas.height);
    context.restore();
    for (const base of this.base.values()) base.colour = colour;
  }
}

/** `#rrggbb` of `#rrggbbaa`. */
const opaque = 7;
const alphaOf = (colour: string) => colour.slice(opaque);
