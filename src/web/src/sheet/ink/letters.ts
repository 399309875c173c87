import { glyphPath } from '../../letters/fonts';
import { type Box, union } from './boxes';
import type { Brush } from './grain';

/** Letters that look alike, as a paragraph has them. */
interface Run {
  font: number;
  /** The size of a unit of the font, and how far that leans to the right for each unit down; 0.01 mm. */
  scale: number;
  lean: number;
  /** For each glyph its number in the font. */
  glyphs: Uint32Array;
  /** For each glyph x and y, 0.01 mm. */
  places: Float32Array;
  /** All of them as one path, once all are there. */
  path?: Path2D;
}

interface Paragraph {
  id: number;
  /** How far below the first line of the text it begins, 0.01 mm. */
  y: number;
  /** In which its letters lie, from there; 0.01 mm. */
  box: Box;
  runs: readonly { run: Run; colour: string }[];
}

/** A text as Core hands it out. */
export interface TextInk {
  /** Where its box lies: x' = a·x + c·y + e, y' = b·x + d·y + f. */
  place: readonly [number, number, number, number, number, number];
  paragraphs: readonly Paragraph[];
  /** Around all its letters, once it was asked for. */
  box?: Box;
}

export const silent: readonly TextInk[] = [];

/** Reads the texts of a thing; undefined where they count on what was not handed out before. Where none of them became another, they are those that there were. */
export function readTexts(
  words: Uint32Array,
  singles: Float32Array,
  start: number,
  count: number,
  before: readonly TextInk[],
  colourOf: (rgba: number) => string,
): { texts: readonly TextInk[]; next: number } | undefined {
  const changed = words[start]!;
  if (changed < count && before.length !== count) return undefined;
  let at = start + 1;
  if (changed === 0) return { texts: count > 0 ? before : silent, next: at };
  const texts = changed < count ? before.slice() : new Array<TextInk>(count);
  const known = new KnownParagraphs(before);
  for (let left = changed; left > 0; left--) {
    const place = words[at]!;
    const read = readText(words, singles, at + 1, before[place], (id) => known.find(id, place), colourOf);
    if (!read) return undefined;
    [texts[place], at] = [read.text, read.next];
  }
  return { texts, next: at };
}

/** The paragraphs that a thing had before, by their numbers. */
class KnownParagraphs {
  private byId: Map<number, Paragraph> | undefined;

  constructor(private readonly texts: readonly TextInk[]) {}

  /** @param place The text in which it mostly is. */
  find(id: number, place: number): Paragraph | undefined {
    if (!this.byId && this.texts[place]?.paragraphs.length === 1 && this.texts[place].paragraphs[0]!.id === id)
      return this.texts[place].paragraphs[0];
    this.byId ??= new Map(this.texts.flatMap(({ paragraphs }) => paragraphs.map((one) => [one.id, one] as const)));
    return this.byId.get(id);
  }
}

function readText(
  words: Uint32Array,
  singles: Float32Array,
  start: number,
  before: TextInk | undefined,
  find: (id: number) => Paragraph | undefined,
  colourOf: (rgba: number) => string,
): { text: TextInk; next: number } | undefined {
  const place = [...singles.subarray(start, start + 6)] as unknown as TextInk['place'];
  const there = before?.paragraphs ?? [];
  const [head, tail, down] = [words[start + 6]!, words[start + 7]!, singles[start + 8]!];
  if (head + tail > there.length) return undefined;
  const paragraphs = there.slice(0, head);
  let at = start + 10;
  for (let left = words[start + 9]!; left > 0; left--) {
    const [id, y, isKnown, count] = [words[at]!, singles[at + 1]!, words[at + 2] === 1, words[at + 3]!];
    at += 4;
    const known = isKnown ? find(id) : undefined;
    if (isKnown && known?.runs.length !== count) return undefined;
    let box = known?.box;
    if (!box) {
      box = [singles[at]!, singles[at + 1]!, singles[at + 2]!, singles[at + 3]!];
      at += 4;
    }
    const runs: { run: Run; colour: string }[] = [];
    for (let i = 0; i < count; i++) {
      const colour = colourOf(words[at++]!);
      if (known) {
        runs.push({ run: known.runs[i]!.run, colour });
        continue;
      }
      const [font, scale, lean, length] = [words[at]!, singles[at + 1]!, singles[at + 2]!, words[at + 3]!];
      at += 4;
      const glyphs = new Uint32Array(length);
      const places = new Float32Array(length * 2);
      for (let k = 0; k < length; k++, at += 3) {
        glyphs[k] = words[at]!;
        places[2 * k] = singles[at + 1]!;
        places[2 * k + 1] = singles[at + 2]!;
      }
      runs.push({ run: { font, scale, lean, glyphs, places }, colour });
    }
    paragraphs.push({ id, y, box, runs });
  }
  for (const one of there.slice(there.length - tail)) paragraphs.push(down === 0 ? one : { ...one, y: one.y + down });
  return { text: { place, paragraphs }, next: at };
}

/** The box around all letters of a text where it lies, 0.01 mm. */
export function boxOfText(text: TextInk): Box {
  return (text.box ??= boxOf(text.place, text.paragraphs));
}

/** The box in which two states of a text differ, where they lie; undefined where they look the same. */
export function differenceOf(one: TextInk, other: TextInk): Box | undefined {
  if (one === other) return undefined;
  if (one.place.some((part, i) => part !== other.place[i])) return union(boxOfText(one), boxOfText(other));
  const [before, now] = [one.paragraphs, other.paragraphs];
  const most = Math.min(before.length, now.length);
  let [head, tail] = [0, 0];
  while (head < most && isSame(before[head]!, now[head]!)) head++;
  while (tail < most - head && isSame(before[before.length - 1 - tail]!, now[now.length - 1 - tail]!)) tail++;
  const differing = [...before.slice(head, before.length - tail), ...now.slice(head, now.length - tail)];
  return differing.length > 0 ? boxOf(one.place, differing) : undefined;
}

function isSame(one: Paragraph, other: Paragraph): boolean {
  return (
    one === other ||
    (one.id === other.id && one.y === other.y && one.runs.every(({ colour }, i) => colour === other.runs[i]?.colour))
  );
}

function boxOf([a, b, c, d, e, f]: TextInk['place'], paragraphs: readonly Paragraph[]): Box {
  let around: Box | undefined;
  for (const { y, box } of paragraphs) around = union(around, [box[0], y + box[1], box[2], y + box[3]]);
  const [left, top, right, bottom] = around ?? [0, 0, 0, 0];
  const corners = [
    [left, top],
    [right, top],
    [right, bottom],
    [left, bottom],
  ].map(([x, y]) => [a * x! + c * y! + e, b * x! + d * y! + f] as const);
  const [across, down] = [corners.map(([x]) => x), corners.map(([, y]) => y)];
  return [Math.min(...across), Math.min(...down), Math.max(...across), Math.max(...down)];
}

/** Paints a text; of one that stands upright no paragraphs that lie wholly beyond a box. */
export function paintText(
  context: Brush,
  { place, paragraphs }: TextInk,
  tint: (colour: string) => string,
  within?: Box,
): void {
  const [, b, c, d, , f] = place;
  const [top, bottom] =
    within && b === 0 && c === 0 && d > 0 ? [(within[1] - f) / d, (within[3] - f) / d] : [-Infinity, Infinity];
  context.save();
  context.transform(...place);
  let from = 0;
  for (const { y, box, runs } of paragraphs) {
    if (y + box[3] < top || y + box[1] > bottom) continue;
    context.translate(0, y - from);
    from = y;
    for (const { run, colour } of runs) {
      const path = pathOf(run);
      if (!path) continue;
      context.fillStyle = tint(colour);
      context.fill(path);
    }
  }
  context.restore();
}

function pathOf(run: Run): Path2D | undefined {
  if (run.path) return run.path;
  const path = new Path2D();
  const { font, glyphs, places, scale, lean } = run;
  for (let i = 0; i < glyphs.length; i++) {
    const glyph = glyphPath(font, glyphs[i]!);
    if (!glyph) return undefined;
    path.addPath(glyph, { a: scale, b: 0, c: lean, d: scale, e: places[2 * i]!, f: places[2 * i + 1]! });
  }
  run.path = path;
  return path;
}
