import { glyphPath } from '../../letters/fonts';
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
  runs: readonly { run: Run; colour: string }[];
}

/** A text as Core hands it out. */
export interface TextInk {
  /** Where its box lies: x' = a·x + c·y + e, y' = b·x + d·y + f. */
  place: readonly [number, number, number, number, number, number];
  paragraphs: readonly Paragraph[];
}

/** Reads a text of a packet; undefined where it counts on a paragraph that was not handed out before. */
export function readText(
  words: Uint32Array,
  singles: Float32Array,
  start: number,
  before: readonly TextInk[],
  colourOf: (rgba: number) => string,
): { text: TextInk; next: number } | undefined {
  const place = [...singles.subarray(start, start + 6)] as unknown as TextInk['place'];
  const paragraphs: Paragraph[] = [];
  let at = start + 7;
  for (let left = words[start + 6]!; left > 0; left--) {
    const [id, y, isKnown, count] = [words[at]!, singles[at + 1]!, words[at + 2] === 1, words[at + 3]!];
    at += 4;
    const known = isKnown ? find(before, id) : undefined;
    if (isKnown && known?.runs.length !== count) return undefined;
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
    paragraphs.push({ id, y, runs });
  }
  return { text: { place, paragraphs }, next: at };
}

function find(texts: readonly TextInk[], id: number): Paragraph | undefined {
  for (const { paragraphs } of texts) for (const paragraph of paragraphs) if (paragraph.id === id) return paragraph;
  return undefined;
}

/** Paints a text. */
export function paintText(context: Brush, { place, paragraphs }: TextInk, tint: (colour: string) => string): void {
  context.save();
  context.transform(...place);
  let from = 0;
  for (const { y, runs } of paragraphs) {
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
