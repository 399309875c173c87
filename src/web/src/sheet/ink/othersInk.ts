import type { Core } from '../../core/runtime';
import { canvasIn, pixelRatio, sizeCanvas } from './canvases';
import { pencilFill } from './grain';
import { cssColour, readOutline } from './packet';
import { type Pen, penKindNumbers, penNumbers } from '../../model/pens';
import type { View } from './view';

/** A piece's head: the stroke's number, whether it ends, and the pen as eight-bit numbers but for its width and colour. */
const headBytes = 16;
const sampleBytes = 10;
const ended = 1;
const nameStays = 1_000;
/** Names move no more often than this, ms. */
const betweenSigns = 80;
/** Wet ink whose stroke never comes, because the connection broke, dries off the screen. */
const inkStays = 4_000;

interface WetStroke {
  person: string;
  handle: number;
  colour: string;
  isPencil: boolean;
  path: Path2D;
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
  const [kind, width, colour, line, tip, angle, response] = penNumbers(pen) as [
    number,
    number,
    number,
    number,
    number,
    number,
    number,
  ];
  view.setUint32(0, stroke);
  view.setUint8(4, ends ? ended : 0);
  view.setUint8(5, kind);
  view.setUint16(6, width);
  view.setInt32(8, colour);
  view.setUint8(12, line);
  view.setUint8(13, tip);
  view.setUint8(14, angle);
  view.setInt8(15, response);
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
  private later: ReturnType<typeof setTimeout> | undefined;
  private signedAt = 0;

  constructor(
    holder: HTMLElement,
    private readonly core: Core,
  ) {
    this.canvas = canvasIn(holder);
    this.canvas.dataset.testid = 'others-ink';
  }

  resize(width: number, height: number): void {
    sizeCanvas(this.canvas, width, height);
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
    const stroke = this.strokes.get(key) ?? this.begin(person, view);
    const samples: number[] = [];
    for (let at = headBytes; at < piece.length; at += sampleBytes)
      samples.push(view.getInt32(at), view.getInt32(at + 4), view.getUint16(at + 8), 0, 0, 0);
    stroke.path.addPath(readOutline(this.core.PenBridge.Add(stroke.handle, Int32Array.from(samples))));
    stroke.ended = view.getUint8(4) === ended;
    stroke.changedAt = performance.now();
    this.strokes.set(key, stroke);
    if (samples.length > 0) this.penAt(person, connection, samples.at(-6)!, samples.at(-5)!);
  }

  private begin(person: string, view: DataView): WetStroke {
    const pen = [
      view.getUint8(5),
      view.getUint16(6),
      view.getInt32(8),
      view.getUint8(12),
      view.getUint8(13),
      view.getUint8(14),
      view.getInt8(15),
    ];
    return {
      person,
      handle: this.core.PenBridge.Begin(pen, 0),
      colour: cssColour(view.getUint32(8)),
      isPencil: view.getUint8(5) === penKindNumbers.pencil,
      path: new Path2D(),
      ended: false,
      changedAt: 0,
    };
  }

  private forget(key: string): void {
    const stroke = this.strokes.get(key);
    if (stroke) this.core.PenBridge.Drop(stroke.handle);
    this.strokes.delete(key);
  }

  penAt(person: string, connection: string, x: number, y: number): void {
    this.signs.set(connection, { connection, person, x, y, at: performance.now() });
    this.paintSoon();
  }

  /** Strokes were stored and are on the page: what lay wet for them goes. */
  dried(): void {
    for (const [key, stroke] of this.strokes) if (stroke.ended) this.forget(key);
    this.paintSoon();
  }

  stop(): void {
    for (const key of [...this.strokes.keys()]) this.forget(key);
    cancelAnimationFrame(this.frame);
    clearTimeout(this.later);
  }

  /** What is over goes, and names come to where their pens are, also when nothing more is heard. */
  private paintLater(): void {
    this.later ??= setTimeout(() => {
      this.later = undefined;
      this.paintSoon();
    }, 250);
  }

  private paintSoon(): void {
    if (!this.frame) this.frame = requestAnimationFrame(() => this.paint());
  }

  private paint(): void {
    this.frame = 0;
    const now = performance.now();
    const context = this.canvas.getContext('2d')!;
    const ratio = pixelRatio();
    context.resetTransform();
    context.clearRect(0, 0, this.canvas.width, this.canvas.height);
    const { scale, x, y } = this.view;
    context.setTransform(scale * ratio, 0, 0, scale * ratio, x * ratio, y * ratio);
    for (const [key, stroke] of this.strokes) {
      if (now - stroke.changedAt > inkStays) this.forget(key);
      else {
        context.fillStyle = stroke.isPencil
          ? pencilFill(context, this.core.PenBridge.Grain(stroke.handle), stroke.colour)
          : stroke.colour;
        context.fill(stroke.path);
      }
    }
    for (const [key, sign] of this.signs) if (now - sign.at > nameStays) this.signs.delete(key);
    this.canvas.dataset.strokes = String(this.strokes.size);
    // A name is read, not followed with the eye: it need not move with every frame.
    if (now - this.signedAt >= betweenSigns) {
      this.signedAt = now;
      this.onSigns([...this.signs.values()]);
    }
    if (this.strokes.size > 0 || this.signs.size > 0) this.paintLater();
    else if (this.signedAt < now) this.onSigns([]);
  }
}
