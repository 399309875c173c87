import { type Box, meets } from './boxes';
import { type Brush, pencilFill } from './grain';
import { boxOfText, paintText, readTexts, silent, type TextInk } from './letters';
import { paintPicture, type PictureInk, readInkPicture } from './pictures';

/** One outline of a thing, and what it is filled with. */
export interface Coat {
  path: Path2D;
  colour: string;
  /** How densely it covers the paper's grain. */
  grain: number;
}

/** What lies on a page as Core hands it out: ready to be filled. */
export interface InkItem extends Coat {
  id: string;
  /** Painting order: rank on which sheet, layer, order in it, time, replica and counter in halves. */
  order: readonly number[];
  /** 1 ink, 2 highlighter, 4 shape, 8 filled region, 16 typed text, 32 picture, 64 slip, 128 plot. */
  kind: number;
  /** The coats below the foremost one, which is the item's own, from the back. */
  below: readonly Coat[];
  /** The letters over all coats. */
  texts: readonly TextInk[];
  /** What lies below all coats. */
  pictures: readonly PictureInk[];
  shown: boolean;
  /** left, top, right, bottom in 0.01 mm. */
  box: readonly [number, number, number, number];
  /** So far it was shifted from where its outlines lie. */
  dx: number;
  dy: number;
}

/** Core takes an outline to be painted here that is not: all are to be had anew. */
export class LostOutlineError extends Error {}

const bare: readonly Coat[] = [];
const imageless: readonly PictureInk[] = [];
/** The outline of what has no coat. */
const nothing = new Path2D();

/** Reads a render packet; its layout stands with RenderPacket in CalmQuill.Core.Browser. What only moved or changed its colour keeps the outline that `has` knows. */
export function readPacket(bytes: Uint8Array, has?: (id: string) => InkItem | undefined): InkItem[] {
  const words = new Uint32Array(bytes.buffer, bytes.byteOffset, bytes.byteLength / 4);
  const singles = new Float32Array(bytes.buffer, bytes.byteOffset, bytes.byteLength / 4);
  const items: InkItem[] = [];
  let at = 1;
  // Neighbours mostly come from one device and have one colour.
  let [replica, replicaHigh, replicaLow] = ['', -1, -1];
  let [colour, last] = ['', -1];
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
    const [rank, layer, place, kind, shown, coats] = [
      words[at + 6]!,
      words[at + 7]!,
      words[at + 8]!,
      words[at + 9]!,
      words[at + 10]!,
      words[at + 11]!,
    ];
    const [dx, dy] = [singles[at + 12]!, singles[at + 13]!];
    const box = [singles[at + 14]!, singles[at + 15]!, singles[at + 16]!, singles[at + 17]!] as const;
    const id = `${replica}-${counterHigh * 2 ** 32 + counterLow}`;
    const standing = has?.(id);
    const before = words[at + 18] === 1 ? standing : undefined;
    if (words[at + 18] === 1 && coats > 0 && (!before || before.below.length !== coats - 1))
      throw new LostOutlineError();
    const texts = words[at + 19]!;
    const shows = words[at + 20]!;
    const paints = at + 21;
    at = paints + 2 * coats;
    let path = before?.path ?? nothing;
    let below = bare;
    // Most things have one coat.
    for (let coat = 0; coat < coats; coat++) {
      let outline = coat < coats - 1 ? before?.below[coat]?.path : before?.path;
      if (!outline) {
        const read = readRings(words, singles, at);
        [outline, at] = [read.path, read.next];
      }
      if (coat === coats - 1) path = outline;
      else {
        const [rgba, grain] = [words[paints + 2 * coat]!, words[paints + 2 * coat + 1]!];
        below = [...below, { path: outline, colour: cssColour(rgba), grain }];
      }
    }
    let written = silent;
    if (shown === 1) {
      const read = readTexts(words, singles, at, texts, standing?.texts ?? silent, cssColour);
      if (!read) throw new LostOutlineError();
      [written, at] = [read.texts, read.next];
    }
    const seen: PictureInk[] = [];
    for (let picture = 0; picture < shows; picture++) {
      const read = readInkPicture(words, singles, at);
      seen.push(read.picture);
      at = read.next;
    }
    const top = paints + 2 * (coats - 1);
    if (coats > 0 && words[top] !== last) {
      last = words[top]!;
      colour = cssColour(last);
    }
    items.push({
      id,
      order: [rank, layer, place, timeHigh, timeLow, replicaHigh, replicaLow, counterHigh, counterLow],
      kind,
      colour,
      below,
      texts: written,
      pictures: shows > 0 ? seen : imageless,
      shown: shown === 1,
      box,
      path,
      dx,
      dy,
      grain: coats > 0 ? words[top + 1]! : 0,
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

/**
 * Paints one thing, coat by coat.
 * @param within What of the page is painted, 0.01 mm; letters beyond it are left out.
 */
export function paintItem(
  context: Brush,
  item: InkItem,
  tint: (colour: string) => string = (colour) => colour,
  within?: Box,
): void {
  const { dx, dy } = item;
  if (dx !== 0 || dy !== 0) context.translate(dx, dy);
  for (const picture of item.pictures) paintPicture(context, picture);
  for (const coat of item.below) {
    context.fillStyle = pencilFill(context, coat.grain, tint(coat.colour));
    context.fill(coat.path);
  }
  context.fillStyle = pencilFill(context, item.grain, tint(item.colour));
  context.fill(item.path);
  const seen = within && ([within[0] - dx, within[1] - dy, within[2] - dx, within[3] - dy] as const);
  for (const text of item.texts) if (!seen || meets(boxOfText(text), seen)) paintText(context, text, tint, seen);
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

/** Whether coats look alike. */
export function areSame(one: readonly Coat[], other: readonly Coat[]): boolean {
  return (
    one === other ||
    (one.length === other.length &&
      one.every(
        ({ path, colour, grain }, i) =>
          path === other[i]!.path && colour === other[i]!.colour && grain === other[i]!.grain,
      ))
  );
}

export function compareOrder(a: readonly number[], b: readonly number[]): number {
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return a[i]! - b[i]!;
  return 0;
}
