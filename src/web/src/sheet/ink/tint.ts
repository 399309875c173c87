import type { Core } from '../../core/runtime';
import { cssColour } from './packet';
import type { SheetPaper } from './sheetPaper';

/** Paper dimmed for the night, on screen only. */
export const dimGround = '#242b29';
const dimLine = '#3a4542';

const kept = new Map<string, string>();

/** An ink's colour as it is shown on a ground: itself on light paper, and on dark paper light enough to be read. The same colours give the same again. */
export function tintOn(core: Core, ground: string, colour: string): string {
  if (!isDark(ground)) return colour;
  const key = `${ground} ${colour}`;
  let shown = kept.get(key);
  if (shown === undefined) {
    shown = cssColour(core.PaperBridge.StandingOut(numberOf(colour), numberOf(ground)));
    kept.set(key, shown);
  }
  return shown;
}

/** The sheet without its glare: what is printed on it keeps its places and loses its colours. */
export function dimmedPaper(paper: SheetPaper): SheetPaper {
  return isDark(paper.ground)
    ? paper
    : {
        ...paper,
        ground: dimGround,
        layers: paper.layers.map((layer) => ({
          ...layer,
          ...(layer.fill ? { fill: dimLine } : {}),
          ...(layer.line ? { line: dimLine } : {}),
        })),
      };
}

export function isDark(colour: string): boolean {
  const [red, green, blue] = [1, 3, 5].map((at) => Number.parseInt(colour.slice(at, at + 2), 16)) as [
    number,
    number,
    number,
  ];
  return red * 0.3 + green * 0.59 + blue * 0.11 < 110;
}

function numberOf(colour: string): number {
  return Number.parseInt(colour.length === 7 ? `${colour.slice(1)}ff` : colour.slice(1), 16);
}
