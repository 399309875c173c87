import type { Font } from 'harfbuzzjs';
import { answerCore } from '../core/runtime';

type HarfBuzz = typeof import('harfbuzzjs');

let harfbuzz: HarfBuzz | undefined;
const fonts = new Map<string, Font>();

answerCore('letters', { shape });

/** Loads what shapes letters, once. */
export async function loadShaping(): Promise<void> {
  harfbuzz ??= await import('harfbuzzjs');
}

/** Lets a font be shaped in. */
export function addFont(name: string, file: Uint8Array<ArrayBuffer>): void {
  const { Blob, Face, Font } = harfbuzz!;
  fonts.set(name, new Font(new Face(new Blob(file.slice().buffer))));
}

/**
 * What Core asks of script: the glyphs of letters, from left to right. For each its number, the first letter that it stands for, its advance, and how far it is moved
 * right and up, in units of the font.
 */
export function shape(name: string, text: string, fromRight: boolean): number[] {
  const font = fonts.get(name);
  if (!harfbuzz || !font) return [];
  const buffer = new harfbuzz.Buffer();
  buffer.addText(text);
  buffer.guessSegmentProperties();
  buffer.setDirection(fromRight ? harfbuzz.Direction.RTL : harfbuzz.Direction.LTR);
  harfbuzz.shape(font, buffer);
  const places = buffer.getGlyphPositions();
  return buffer
    .getGlyphInfos()
    .flatMap(({ codepoint, cluster }, i) => [
      codepoint,
      cluster,
      places[i]!.xAdvance,
      places[i]!.xOffset,
      places[i]!.yOffset,
    ]);
}
