import { canvasIn } from './dryInk';
import { type Pen, wetRadius } from './pens';
import type { View } from './view';

/** Paints the stroke being written, segment by segment, in the moment each sample arrives. */
export class WetInk {
  private readonly canvas: HTMLCanvasElement;
  private readonly context: CanvasRenderingContext2D;
  private last: { x: number; y: number; radius: number } | undefined;

  constructor(holder: HTMLElement) {
    this.canvas = canvasIn(holder);
    this.context = this.canvas.getContext('2d', { desynchronized: true })!;
  }

  resize(width: number, height: number): void {
    const ratio = Math.min(devicePixelRatio, 3);
    this.canvas.width = Math.round(width * ratio);
    this.canvas.height = Math.round(height * ratio);
  }

  begin(pen: Pen, view: View): void {
    const scale = view.scale * Math.min(devicePixelRatio, 3);
    const ratio = scale / view.scale;
    this.context.setTransform(scale, 0, 0, scale, view.x * ratio, view.y * ratio);
    this.context.strokeStyle = pen.colour;
    this.context.fillStyle = pen.colour;
    this.context.lineCap = 'round';
    this.last = undefined;
  }

  /** One more sample, in 0.01 mm. */
  add(pen: Pen, x: number, y: number, pressure: number): void {
    const radius = wetRadius(pen, pressure);
    const { context, last } = this;
    context.beginPath();
    if (last) {
      context.lineWidth = last.radius + radius;
      context.moveTo(last.x, last.y);
      context.lineTo(x, y);
      context.stroke();
    } else {
      context.arc(x, y, radius, 0, Math.PI * 2);
      context.fill();
    }
    this.last = { x, y, radius };
  }

  clear(): void {
    this.context.save();
    this.context.resetTransform();
    this.context.clearRect(0, 0, this.canvas.width, this.canvas.height);
    this.context.restore();
  }
}
