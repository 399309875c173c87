import type { Area, Drawing } from '../../model/drawing';
import { type InkItem, paintItem } from './packet';

/** What lies under the ink: the sheet, what is printed on it, and the picture or page of an own paper. Lengths are 0.01 mm. */
export interface SheetPaper {
  sheet: Area;
  ground: string;
  layers: Layer[];
  /** Painted below what is printed, fitted into the sheet; one after another. */
  under: Under[];
}

interface Layer {
  path: Path2D;
  fill?: string;
  line?: string;
  width: number;
  dash?: readonly [number, number];
}

export type Under =
  { picture: ImageBitmap; area: Area } | { layers: Layer[]; ink: InkItem[]; scale: number; dx: number; dy: number };

export function sheetPaperOf(drawing: Drawing): SheetPaper {
  return { sheet: drawing.sheet, ground: drawing.ground, layers: layersOf(drawing), under: [] };
}

/** The same sheet without anything on it, to be seen through. */
export function clearPaper({ sheet }: SheetPaper): SheetPaper {
  return { sheet, ground: 'transparent', layers: [], under: [] };
}

export function layersOf(drawing: Drawing): Layer[] {
  return drawing.pieces.flatMap((piece) =>
    piece.path
      ? [
          {
            path: new Path2D(piece.path),
            width: piece.width ?? 0,
            ...(piece.fill ? { fill: piece.fill } : {}),
            ...(piece.line ? { line: piece.line } : {}),
            ...(piece.dash ? { dash: piece.dash } : {}),
          },
        ]
      : [],
  );
}

/** Paints a sheet without its ink. Lines are at least one pixel wide. */
export function paintSheet(context: CanvasRenderingContext2D, paper: SheetPaper, pixel: number): void {
  const [left, top, right, bottom] = paper.sheet;
  context.fillStyle = paper.ground;
  context.fillRect(left, top, right - left, bottom - top);
  context.save();
  context.beginPath();
  context.rect(left, top, right - left, bottom - top);
  context.clip();
  for (const under of paper.under) paintUnder(context, under, pixel);
  paintLayers(context, paper.layers, pixel);
  context.restore();
}

function paintUnder(context: CanvasRenderingContext2D, under: Under, pixel: number): void {
  if ('picture' in under) {
    const [left, top, right, bottom] = under.area;
    context.drawImage(under.picture, left, top, right - left, bottom - top);
    return;
  }
  context.save();
  context.transform(under.scale, 0, 0, under.scale, under.dx, under.dy);
  paintLayers(context, under.layers, pixel / under.scale);
  for (const item of under.ink) paintItem(context, item);
  context.restore();
}

function paintLayers(context: CanvasRenderingContext2D, layers: Layer[], pixel: number): void {
  for (const layer of layers) {
    if (layer.fill) {
      context.fillStyle = layer.fill;
      context.fill(layer.path);
    }
    if (!layer.line) continue;
    context.strokeStyle = layer.line;
    context.lineWidth = Math.max(layer.width, pixel);
    if (layer.dash) {
      context.setLineDash(layer.dash);
      context.lineCap = 'round';
    }
    context.stroke(layer.path);
    if (layer.dash) {
      context.setLineDash([]);
      context.lineCap = 'butt';
    }
  }
}
