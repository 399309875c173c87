import { type Brush, pencilFill } from './grain';

/** What lies on a page as Core hands it out: ready to be filled. */
export interface InkItem {
  id: string;
  /** Painting order: rank, layer, order in it, time, replica and counter in halves. */
  order: readonly number[];
  /** 1 ink, 2 highlighter, 4 shape, 8 filled region. */
  kind: number;
  colour: string;
  /** What it is filled with; undefined for nothing. */
  fill: { path: Path2D; colour: string } | undefined;
  shown: boolean;
  /** left, top, right, bottom in 0.01 mm. */
  box: readonly [number, number, number, number];
  /** Its outline, and that of its fill, where it lay before it was shifted so far. */
  path: Path2D;
  dx: number;
  dy: number;
  /** How densely its line covers the paper's grain. */
  grain: number;
}

/** Core takes an outline to be painted here that is not: all are to be had anew. */
export class LostOutlineError extends Error {}

/** Reads a render packet; its layout stands with RenderPacket in CalmQuill.Core.Browser. What only moved or changed its colour keeps the outline that `has` knows. */
export function readPacket(bytes: Uint8Array, has?: (id: string) => InkItem | undefined): InkItem[] {
  const words = new Uint32Array(bytes.buffer, bytes.byteOffset, bytes.byteLength / 4);
  const singles = new Float32Array(bytes.buffer, bytes.byteOffset, bytes.byteLength / 4);
  const items: InkItem[] = [];
  let at = 1;
  // Neighbours mostly come from one device and have one colour.
  let [replica, replicaHigh, replicaLow] = ['', -1, -1];
  let [colour, line] = ['', -1];
  for (let left = words[0]!; left > 0; left--) {
    if (words[at] !== replicaHigh || words[at + 1] !== replicaLow) {
      [replicaHigh, replicaLow] = [words[at]!, words[at + 1]!];
      replica = hex(replicaHigh) + hex(replicaLow);
    }
    const [counterHigh, counterLow, timeHigh, timeLow] = [
      words[at + 2]!,
      words[at + 3]!,
      words[at + 4]!,
      words[at + 5]!,
    ];
    const [rank, layer, place, kind, fill, shown] = [
      words[at + 6]!,
      words[at + 7]!,
      words[at + 8]!,
      words[at + 9]!,
      words[at + 11]!,
      words[at + 12]!,
    ];
    if (words[at + 10] !== line) {
      line = words[at + 10]!;
      colour = cssColour(line);
    }
    const grain = words[at + 13]!;
    const [dx, dy] = [singles[at + 14]!, singles[at + 15]!];
    const box = [singles[at + 16]!, singles[at + 17]!, singles[at + 18]!, singles[at + 19]!] as const;
    const id = `${replica}-${counterHigh * 2 ** 32 + counterLow}`;
    let path: Path2D;
    let filled: Path2D | undefined;
    if (words[at + 20] === 1) {
      const before = has?.(id);
      if (!before) throw new LostOutlineError();
      [path, filled, at] = [before.path, before.fill?.path, at + 21];
    } else {
      // Most things have no fill.
      const region = words[at + 21] === 0 ? undefined : readRings(words, singles, at + 21);
      const line = readRings(words, singles, region?.next ?? at + 22);
      [path, filled, at] = [line.path, region?.path, line.next];
    }
    items.push({
      id,
      order: [rank, layer, place, timeHigh, timeLow, replicaHigh, replicaLow, counterHigh, counterLow],
      kind,
      colour,
      fill: filled ? { path: filled, colour: cssColour(fill) } : undefined,
      shown: shown === 1,
      box,
      path,
      dx,
      dy,
      grain,
    });
  }
  return items;
}

/** Rings alone, as a path. */
export function readOutline(bytes: Uint8Array): Path2D {
  return readRings(
    new Uint32Array(bytes.buffer, bytes.byteOffset, bytes.byteLength / 4),
    new Float32Array(bytes.buffer, bytes.byteOffset, bytes.byteLength / 4),
    0,
  ).path;
}

/** The same as SVG path data. */
export function outlineToSvg(bytes: Uint8Array): string {
  const words = new Uint32Array(bytes.buffer, bytes.byteOffset, bytes.byteLength / 4);
  const text: string[] = [];
  readRings(words, new Float32Array(bytes.buffer, bytes.byteOffset, bytes.byteLength / 4), 0, {
    moveTo: (x, y) => text.push(`M${x.toFixed(1)} ${y.toFixed(1)}`),
    quadraticCurveTo: (cx, cy, x, y) => text.push(`Q${cx.toFixed(1)} ${cy.toFixed(1)} ${x.toFixed(1)} ${y.toFixed(1)}`),
    closePath: () => text.push('Z'),
  });
  return text.join('');
}

/** Paints one thing: its fill, then its line. */
export function paintItem(context: Brush, item: InkItem, tint: (colour: string) => string = (colour) => colour): void {
  const { dx, dy } = item;
  if (dx !== 0 || dy !== 0) context.translate(dx, dy);
  if (item.fill) {
    context.fillStyle = tint(item.fill.colour);
    context.fill(item.fill.path);
  }
  context.fillStyle = pencilFill(context, item.grain, tint(item.colour));
  context.fill(item.path);
  if (dx !== 0 || dy !== 0) context.translate(-dx, -dy);
}

type Pencil = Pick<Path2D, 'moveTo' | 'quadraticCurveTo' | 'closePath'>;

/** Rings run through the midpoints of their control points, in quadratic pieces. */
function readRings(
  words: Uint32Array,
  singles: Float32Array,
  start: number,
  pencil?: Pencil,
): { path: Path2D; next: number } {
  const path = new Path2D();
  const to = pencil ?? path;
  let at = start + 1;
  for (let rings = words[start]!; rings > 0; rings--) {
    const count = words[at]!;
    const first = at + 1;
    const end = first + count * 2;
    to.moveTo((singles[end - 2]! + singles[first]!) / 2, (singles[end - 1]! + singles[first + 1]!) / 2);
    for (let i = first; i < end; i += 2) {
      const next = i + 2 < end ? i + 2 : first;
      to.quadraticCurveTo(
        singles[i]!,
        singles[i + 1]!,
        (singles[i]! + singles[next]!) / 2,
        (singles[i + 1]! + singles[next + 1]!) / 2,
      );
    }
    to.closePath();
    at = end;
  }
  return { path, next: at };
}

function hex(half: number): string {
  return half.toString(16).padStart(8, '0');
}

export function cssColour(rgba: number): string {
  return `#${rgba.toString(16).padStart(8, '0')}`;
}

export function compareOrder(a: readonly number[], b: readonly number[]): number {
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return a[i]! - b[i]!;
  return 0;
}
