import { loadedCore } from '../../core/runtime';

/** What is painted with. */
export type Brush = CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D;

/** At this level nothing stays bare. */
export const solid = 15;
const side = 1024;
const mostPoints = 128;
const leastPoints = 16;
const mostKept = 96;

const tiles = new Map<string, OffscreenCanvas>();
const patterns = new Map<string, CanvasPattern>();
const addresses = new Map<string, string>();

/** What a pencil's line is filled with on a canvas: its colour where the paper's grain takes it, at a measure that suits how large the page is seen. */
export function pencilFill(context: Brush, level: number, colour: string): string | CanvasPattern {
  if (level >= solid || !loadedCore()) return colour;
  const { a, b } = context.getTransform();
  const pixels = side * Math.hypot(a, b);
  let points = mostPoints;
  while (points > leastPoints && points / 2 >= pixels) points /= 2;
  const key = `${level} ${points} ${colour}`;
  let pattern = patterns.get(key);
  if (!pattern) {
    if (patterns.size >= mostKept) {
      patterns.clear();
      tiles.clear();
    }
    pattern = context.createPattern(tile(level, points, colour), 'repeat')!;
    pattern.setTransform(new DOMMatrix([side / points, 0, 0, side / points, 0, 0]));
    patterns.set(key, pattern);
  }
  return pattern;
}

/** A tile as a picture for SVG, whose side is 1,024 units; undefined where nothing stays bare. */
export function grainAddress(level: number, colour: string): string | undefined {
  if (level >= solid || !loadedCore()) return undefined;
  const key = `${level} ${colour}`;
  const known = addresses.get(key);
  if (known) return known;
  const made = tile(level, mostPoints, colour);
  const canvas = document.createElement('canvas');
  canvas.width = canvas.height = made.width;
  canvas.getContext('2d')!.drawImage(made, 0, 0);
  const address = canvas.toDataURL();
  if (addresses.size >= mostKept) addresses.clear();
  addresses.set(key, address);
  return address;
}

function tile(level: number, points: number, colour: string): OffscreenCanvas {
  const key = `${level} ${points} ${colour}`;
  const made = tiles.get(key);
  if (made) return made;
  // The paper's grain comes from Core, which is the same for pictures and PDF.
  const covered = loadedCore()!.PenBridge.GrainTile(level, points);
  const canvas = new OffscreenCanvas(points, points);
  const context = canvas.getContext('2d')!;
  const picture = context.createImageData(points, points);
  for (let i = 0; i < covered.length; i++) picture.data[4 * i + 3] = covered[i]!;
  context.putImageData(picture, 0, 0);
  context.globalCompositeOperation = 'source-in';
  context.fillStyle = colour;
  context.fillRect(0, 0, points, points);
  tiles.set(key, canvas);
  return canvas;
}
