import { canvasIn, pixelRatio, sizeCanvas } from './canvases';
import { Pace } from './pace';
import { type InkItem, paintItem } from './packet';
import { soon } from './soon';
import type { View } from './view';

/** x' = a·x + c·y + e, y' = b·x + d·y + f, in page units. */
export type Matrix = [a: number, b: number, c: number, d: number, e: number, f: number];

export const identity: Matrix = [1, 0, 0, 1, 0, 0];

/** Items that float together. */
export interface FloatPart {
  items: InkItem[];
  matrix: Matrix;
}

/** So many items are painted anew in every frame, and no more: the picture of more is moved, and painted anew when it rests. */
const mostAFrame = 300;
const rest = 150;

/** What floats above the page while it is moved, turned or scaled. */
export class FloatInk {
  private readonly canvas: HTMLCanvasElement;
  private standing: FloatPart[] = [];
  private view: View = { scale: 1, x: 0, y: 0 };
  private readonly pace = new Pace();
  private frame = 0;
  private resting: ReturnType<typeof setTimeout> | undefined;
  /** What the canvas holds of very many items, and where it was painted. */
  private painted: { part: FloatPart; at: DOMMatrix } | undefined;
  private painting: { part: FloatPart; at: DOMMatrix; next: number; canvas: OffscreenCanvas } | undefined;

  constructor(
    holder: HTMLElement,
    private readonly tint: (colour: string) => string,
  ) {
    this.canvas = canvasIn(holder);
  }

  get parts(): readonly FloatPart[] {
    return this.standing;
  }

  resize(width: number, height: number): void {
    sizeCanvas(this.canvas, width, height);
    this.painted = undefined;
    this.paintSoon();
  }

  setView(view: View): void {
    this.view = view;
    if (this.standing.length > 0) this.paintSoon();
  }

  show(parts: FloatPart[]): void {
    this.standing = parts;
    this.paintSoon();
  }

  stop(): void {
    cancelAnimationFrame(this.frame);
    clearTimeout(this.resting);
    this.painting = undefined;
  }

  private paintSoon(): void {
    this.frame ||= requestAnimationFrame(() => this.paint());
  }

  private paint(): void {
    this.frame = 0;
    const [part] = this.standing;
    if (part && this.standing.length === 1 && part.items.length > mostAFrame) return this.paintMany(part);
    this.clear();
    const context = this.canvas.getContext('2d')!;
    for (const { items, matrix } of this.standing) {
      context.setTransform(this.toPixels(matrix));
      for (const item of items) paintItem(context, item, this.tint);
    }
  }

  private paintMany(part: FloatPart): void {
    const at = this.toPixels(part.matrix);
    clearTimeout(this.resting);
    if (this.painted?.part.items === part.items) {
      this.place(at);
      this.resting = setTimeout(() => this.begin(part, at), rest);
      return;
    }
    if (this.painting?.part.items === part.items) return;
    this.clear();
    this.begin(part, at);
  }

  private begin(part: FloatPart, at: DOMMatrix): void {
    this.painting = { part, at, next: 0, canvas: new OffscreenCanvas(this.canvas.width, this.canvas.height) };
    this.slice();
  }

  private slice(): void {
    const { painting } = this;
    if (!painting) return;
    const { items } = painting.part;
    const context = painting.canvas.getContext('2d') as unknown as CanvasRenderingContext2D;
    context.setTransform(painting.at);
    painting.next = this.pace.run(painting.canvas, items, painting.next, (item) => {
      paintItem(context, item, this.tint);
      return true;
    });
    if (painting.next < items.length) return soon(() => this.slice());
    this.clear();
    this.canvas.getContext('2d')!.drawImage(painting.canvas, 0, 0);
    this.painted = painting;
    const [part] = this.standing;
    if (part) this.place(this.toPixels(part.matrix));
  }

  private clear(): void {
    this.painted = this.painting = undefined;
    clearTimeout(this.resting);
    const context = this.canvas.getContext('2d')!;
    context.resetTransform();
    context.clearRect(0, 0, this.canvas.width, this.canvas.height);
    this.canvas.style.transform = '';
  }

  /** Moves the painted picture to where its items now are. */
  private place(at: DOMMatrix): void {
    const ratio = pixelRatio();
    const moved = at.multiply(this.painted!.at.inverse());
    this.canvas.style.transform = new DOMMatrix([
      moved.a,
      moved.b,
      moved.c,
      moved.d,
      moved.e / ratio,
      moved.f / ratio,
    ]).toString();
  }

  private toPixels(matrix: Matrix): DOMMatrix {
    const { scale, x, y } = this.view;
    const ratio = pixelRatio();
    return new DOMMatrix([scale * ratio, 0, 0, scale * ratio, x * ratio, y * ratio]).multiply(new DOMMatrix(matrix));
  }
}
