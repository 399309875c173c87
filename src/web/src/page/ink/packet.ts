/** A stroke as Core hands it out: ready to be filled. */
export interface InkItem {
  id: string;
  /** Painting order: time, replica and counter in halves. */
  order: readonly number[];
  colour: string;
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
  for (let left = words[0]!; left > 0; left--) {
    const [replicaHigh, replicaLow, counterHigh, counterLow, timeHigh, timeLow, rgba, shown] = words.subarray(at, at + 8) as unknown as number[];
    const box = [singles[at + 8]!, singles[at + 9]!, singles[at + 10]!, singles[at + 11]!] as const;
    const { path, next } = readRings(words, singles, at + 12);
    at = next;
    items.push({
      id: `${replicaHigh}.${replicaLow}-${counterHigh}.${counterLow}`,
      order: [timeHigh!, timeLow!, replicaHigh!, replicaLow!, counterHigh!, counterLow!],
      colour: cssColour(rgba!),
      shown: shown === 1,
      box,
      path,
    });
  }
  return items;
}

/** The outline of a stroke that is on no page, as SVG path data. */
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

type Pencil = Pick<Path2D, 'moveTo' | 'quadraticCurveTo' | 'closePath'>;

/** Rings run through the midpoints of their control points, in quadratic pieces. */
function readRings(words: Uint32Array, singles: Float32Array, start: number, pencil?: Pencil): { path: Path2D; next: number } {
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
      to.quadraticCurveTo(singles[i]!, singles[i + 1]!, (singles[i]! + singles[next]!) / 2, (singles[i + 1]! + singles[next + 1]!) / 2);
    }
    to.closePath();
    at = end;
  }
  return { path, next: at };
}

export function cssColour(rgba: number): string {
  return `#${rgba.toString(16).padStart(8, '0')}`;
}

export function compareOrder(a: readonly number[], b: readonly number[]): number {
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return a[i]! - b[i]!;
  return 0;
}
