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
  path: Path2D;
}

/** Reads a render packet; its layout stands with RenderPacket in CalmQuill.Core.Browser. */
export function readPacket(bytes: Uint8Array): InkItem[] {
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
    const box = [singles[at + 13]!, singles[at + 14]!, singles[at + 15]!, singles[at + 16]!] as const;
    // Most things have no fill.
    const filled = words[at + 17] === 0 ? undefined : readRings(words, singles, at + 17);
    const { path, next } = readRings(words, singles, filled?.next ?? at + 18);
    at = next;
    items.push({
      id: `${replica}-${counterHigh * 2 ** 32 + counterLow}`,
      order: [rank, layer, place, timeHigh, timeLow, replicaHigh, replicaLow, counterHigh, counterLow],
      kind,
      colour,
      fill: filled ? { path: filled.path, colour: cssColour(fill) } : undefined,
      shown: shown === 1,
      box,
      path,
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
export function paintItem(
  context: CanvasRenderingContext2D,
  item: InkItem,
  tint: (colour: string) => string = (colour) => colour,
): void {
  if (item.fill) {
    context.fillStyle = tint(item.fill.colour);
    context.fill(item.fill.path);
  }
  context.fillStyle = tint(item.colour);
  context.fill(item.path);
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
