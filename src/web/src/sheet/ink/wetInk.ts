import { canvasIn, pixelRatio, sizeCanvas } from './canvases';
import { pencilFill, solid } from './grain';
import type { View } from './view';

/** Paints what is being written or drawn, in the moment each sample arrives. Paths come from Core. */
export class WetInk {
  private readonly canvas: HTMLCanvasElement;
  private readonly context: CanvasRenderingContext2D;
  /** What is proposed lies faintly over what is written. */
  private readonly faint: HTMLCanvasElement;
  private colour = '#000000';
  private transform: [number, number, number, number, number, number] = [1, 0, 0, 1, 0, 0];

  constructor(holder: HTMLElement) {
    this.canvas = canvasIn(holder);
    this.context = this.canvas.getContext('2d', { desynchronized: true })!;
    this.faint = canvasIn(holder);
    this.faint.style.opacity = '0.4';
    this.faint.dataset.part = 'proposal';
  }

  resize(width: number, height: number): void {
    sizeCanvas(this.canvas, width, height);
    sizeCanvas(this.faint, width, height);
  }

  /** Ink is laid on solid and shown at its opacity as a whole, so that pieces that overlap do not darken. */
  begin(colour: string, opacity: number, view: View): void {
    const ratio = pixelRatio();
    this.transform = [view.scale * ratio, 0, 0, view.scale * ratio, view.x * ratio, view.y * ratio];
    this.context.setTransform(...this.transform);
    this.colour = colour;
    this.context.strokeStyle = colour;
    this.context.fillStyle = colour;
    this.context.lineCap = 'round';
    this.canvas.style.opacity = String(opacity);
  }

  /** Lays ink on, of a pencil as densely as it covers the paper's grain by now. */
  add(path: Path2D, grain = solid): void {
    this.context.fillStyle = pencilFill(this.context, grain, this.colour);
    this.context.fill(path);
  }

  /** What the line would be instead; none to take it away. */
  propose(path: Path2D | undefined): void {
    const context = this.faint.getContext('2d')!;
    context.resetTransform();
    context.clearRect(0, 0, this.faint.width, this.faint.height);
    this.faint.dataset.shown = path ? '1' : '';
    if (!path) return;
    context.setTransform(...this.transform);
    context.fillStyle = this.colour;
    context.fill(path);
  }

  /** Instead of all that was painted. */
  replace(path: Path2D, grain = solid): void {
    this.wipe();
    this.add(path, grain);
  }

  /** A thin line as a help, dashed. */
  outline(points: readonly number[], closed: boolean, width: number): void {
    this.wipe();
    const { context } = this;
    context.beginPath();
    for (let i = 0; i + 1 < points.length; i += 2) context.lineTo(points[i]!, points[i + 1]!);
    if (closed) context.closePath();
    context.lineWidth = width;
    context.setLineDash([width * 3, width * 2.5]);
    context.stroke();
    context.setLineDash([]);
  }

  clear(): void {
    this.wipe();
    if (this.faint.dataset.shown) this.propose(undefined);
    this.canvas.style.opacity = '1';
  }

  private wipe(): void {
    this.context.save();
    this.context.resetTransform();
    this.context.clearRect(0, 0, this.canvas.width, this.canvas.height);
    this.context.restore();
  }
}
