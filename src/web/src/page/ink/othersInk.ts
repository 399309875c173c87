import { canvasIn } from './dryInk';
import { type Pen, type PenKind, penKindNumbers, toRgba, wetRadius } from './pens';
import type { View } from './view';

const headBytes = 12;
const sampleBytes = 10;
const ended = 1;
const nameStays = 1_000;
/** Wet ink whose stroke never comes, because the connection broke, dries off the screen. */
const inkStays = 4_000;

interface WetStroke {
  person: string;
  pen: Pen;
  points: { x: number; y: number; pressure: number }[];
  ended: boolean;
  changedAt: number;
}

/** A person's name at their pen, in 0.01 mm. */
export interface PenSign {
  connection: string;
  person: string;
  x: number;
  y: number;
}

/** A piece of a stroke being written, to be passed on: its number, pen, whether it ends, and new samples as x, y, pressure. */
export function encodePiece(stroke: number, pen: Pen, ends: boolean, samples: readonly number[]): Uint8Array {
  const view = new DataView(new ArrayBuffer(headBytes + (samples.length / 3) * sampleBytes));
  view.setUint32(0, stroke);
  view.setUint8(4, penKindNumbers[pen.kind]);
  view.setUint8(5, ends ? ended : 0);
  view.setUint16(6, pen.width);
  view.setUint32(8, toRgba(pen.colour));
  for (let i = 0, at = headBytes; i < samples.length; i += 3, at += sampleBytes) {
    view.setInt32(at, samples[i]!);
    view.setInt32(at + 4, samples[i + 1]!);
    view.setUint16(at + 8, samples[i + 2]!);
  }
  return new Uint8Array(view.buffer);
}

/** Paints what others are writing at this moment, and where their pens are. */
export class OthersInk {
  onSigns: (signs: PenSign[]) => void = () => {};

  private readonly canvas: HTMLCanvasElement;
  private readonly strokes = new Map<string, WetStroke>();
  private readonly signs = new Map<string, PenSign & { at: number }>();
  private view: View = { scale: 1, x: 0, y: 0 };
  private frame = 0;

  constructor(holder: HTMLElement) {
    this.canvas = canvasIn(holder);
    this.canvas.dataset.testid = 'others-ink';
  }

  resize(width: number, height: number): void {
    const ratio = Math.min(devicePixelRatio, 3);
    this.canvas.width = Math.round(width * ratio);
    this.canvas.height = Math.round(height * ratio);
    this.paintSoon();
  }

  setView(view: View): void {
    this.view = view;
    if (this.strokes.size > 0 || this.signs.size > 0) this.paintSoon();
  }

  receive(person: string, connection: string, piece: Uint8Array): void {
    if (piece.length < headBytes || (piece.length - headBytes) % sampleBytes !== 0) return;
    const view = new DataView(piece.buffer, piece.byteOffset, piece.byteLength);
    const key = `${connection} ${view.getUint32(0)}`;
    const kind = (Object.keys(penKindNumbers) as PenKind[]).find((name) => penKindNumbers[name] === view.getUint8(4)) ?? 'ball';
    const pen = { kind, width: view.getUint16(6), colour: `#${view.getUint32(8).toString(16).padStart(8, '0')}` };
    const stroke = this.strokes.get(key) ?? { person, pen, points: [], ended: false, changedAt: 0 };
    for (let at = headBytes; at < piece.length; at += sampleBytes)
      stroke.points.push({ x: view.getInt32(at), y: view.getInt32(at + 4), pressure: view.getUint16(at + 8) });
    stroke.ended = view.getUint8(5) === ended;
    stroke.changedAt = performance.now();
    this.strokes.set(key, stroke);
    const tip = stroke.points[stroke.points.length - 1];
    if (tip) this.penAt(person, connection, tip.x, tip.y);
  }

  penAt(person: string, connection: string, x: number, y: number): void {
    this.signs.set(connection, { connection, person, x, y, at: performance.now() });
    this.paintSoon();
  }

  /** Strokes were stored and are on the page: what lay wet for them goes. */
  dried(): void {
    for (const [key, stroke] of this.strokes) if (stroke.ended) this.strokes.delete(key);
    this.paintSoon();
  }

  stop(): void {
    cancelAnimationFrame(this.frame);
  }

  private paintSoon(): void {
    if (!this.frame) this.frame = requestAnimationFrame(() => this.paint());
  }

  private paint(): void {
    this.frame = 0;
    const now = performance.now();
    const context = this.canvas.getContext('2d')!;
    const ratio = Math.min(devicePixelRatio, 3);
    context.resetTransform();
    context.clearRect(0, 0, this.canvas.width, this.canvas.height);
    const { scale, x, y } = this.view;
    context.setTransform(scale * ratio, 0, 0, scale * ratio, x * ratio, y * ratio);
    context.lineCap = 'round';
    for (const [key, stroke] of this.strokes) {
      if (now - stroke.changedAt > inkStays) this.strokes.delete(key);
      else paintStroke(context, stroke);
    }
    for (const [key, sign] of this.signs) if (now - sign.at > nameStays) this.signs.delete(key);
    this.canvas.dataset.strokes = String(this.strokes.size);
    this.onSigns([...this.signs.values()]);
    if (this.strokes.size > 0 || this.signs.size > 0) setTimeout(() => this.paintSoon(), 250);
  }
}

function paintStroke(context: CanvasRenderingContext2D, { pen, points }: WetStroke): void {
  context.strokeStyle = pen.colour;
  for (let i = 0; i < points.length; i++) {
    const from = points[Math.max(0, i - 1)]!;
    const to = points[i]!;
    context.lineWidth = wetRadius(pen, from.pressure) + wetRadius(pen, to.pressure);
    context.beginPath();
    context.moveTo(from.x, from.y);
    context.lineTo(to.x, to.y);
    context.stroke();
  }
}
