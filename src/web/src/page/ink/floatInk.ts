import { canvasIn, sizeCanvas } from './dryInk';
import { type InkItem, paintItem } from './packet';
import type { View } from './view';

/** x' = a·x + c·y + e, y' = b·x + d·y + f, in page units. */
export type Matrix = [a: number, b: number, c: number, d: number, e: number, f: number];

export const identity: Matrix = [1, 0, 0, 1, 0, 0];

/** What floats above the page while it is moved, turned or scaled. */
export class FloatInk {
  private readonly canvas: HTMLCanvasElement;
  private parts: { items: InkItem[]; matrix: Matrix }[] = [];
  private view: View = { scale: 1, x: 0, y: 0 };
  private frame = 0;

  constructor(
    holder: HTMLElement,
    private readonly tint: (colour: string) => string,
  ) {
    this.canvas = canvasIn(holder);
  }

  resize(width: number, height: number): void {
    sizeCanvas(this.canvas, width, height);
    this.paintSoon();
  }

  setView(view: View): void {
    this.view = view;
    if (this.parts.length > 0) this.paintSoon();
  }

  show(parts: { items: InkItem[]; matrix: Matrix }[]): void {
    this.parts = parts;
    this.paintSoon();
  }

  stop(): void {
    cancelAnimationFrame(this.frame);
  }

  private paintSoon(): void {
    this.frame ||= requestAnimationFrame(() => this.paint());
  }

  private paint(): void {
    this.frame = 0;
    const context = this.canvas.getContext('2d')!;
    const ratio = Math.min(devicePixelRatio, 3);
    context.resetTransform();
    context.clearRect(0, 0, this.canvas.width, this.canvas.height);
    const { scale, x, y } = this.view;
    for (const { items, matrix } of this.parts) {
      context.setTransform(scale * ratio, 0, 0, scale * ratio, x * ratio, y * ratio);
      context.transform(...matrix);
      for (const item of items) paintItem(context, item, this.tint);
    }
  }
}
