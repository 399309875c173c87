/** A small picture of a page: what is filled and drawn, in its own units. */
export interface SmallPicture {
  left: number;
  top: number;
  width: number;
  height: number;
  shapes: Shape[];
}

type Attributes = Record<string, string>;

interface Shape {
  path: Path2D;
  given: Attributes;
}

/**
 * Reads what the server writes of a page (ThumbnailSvg), which knows four elements and no text. Undefined for what has pictures in it or is laid
 * elsewhere by a transform.
 */
export function readPicture(svg: string): SmallPicture | undefined {
  const shapes: Shape[] = [];
  let box: number[] = [];
  let group: Attributes = {};
  for (const [, closing, name, rest] of svg.matchAll(/<(\/?)(\w+)([^>]*)>/g)) {
    const own: Attributes = Object.fromEntries(
      [...rest!.matchAll(/([\w-]+)="([^"]*)"/g)].map(([, key, value]) => [key!, value!]),
    );
    if (own.transform !== undefined) return undefined;
    if (name === 'svg') box = closing ? box : (own.viewBox ?? '').split(' ').map(Number);
    else if (name === 'g') group = closing ? {} : own;
    else if (name === 'path') shapes.push({ path: new Path2D(own.d), given: { ...group, ...own } });
    else if (name === 'rect') shapes.push({ path: rectangle(own), given: { ...group, ...own } });
    else return undefined;
  }
  const [left = 0, top = 0, width = 0, height = 0] = box;
  return width > 0 && height > 0 ? { left, top, width, height, shapes } : undefined;
}

/** Paints a picture over all of a canvas. */
export function paintPicture(canvas: OffscreenCanvas, { left, top, width, height, shapes }: SmallPicture): void {
  const context = canvas.getContext('2d')!;
  const [across, down] = [canvas.width / width, canvas.height / height];
  context.setTransform(across, 0, 0, down, -left * across, -top * down);
  for (const { path, given } of shapes) {
    const { fill = '#000000', stroke = 'none' } = given;
    if (fill !== 'none') {
      context.globalAlpha = Number(given['fill-opacity'] ?? 1);
      context.fillStyle = fill;
      context.fill(path);
    }
    if (stroke === 'none') continue;
    context.globalAlpha = Number(given['stroke-opacity'] ?? 1);
    context.strokeStyle = stroke;
    context.lineWidth = Number(given['stroke-width'] ?? 1);
    context.lineCap = (given['stroke-linecap'] ?? 'butt') as CanvasLineCap;
    context.lineJoin = (given['stroke-linejoin'] ?? 'miter') as CanvasLineJoin;
    context.setLineDash((given['stroke-dasharray'] ?? '').split(' ').filter(Boolean).map(Number));
    context.stroke(path);
  }
}

function rectangle({ x, y, width, height }: Attributes): Path2D {
  const path = new Path2D();
  path.rect(Number(x ?? 0), Number(y ?? 0), Number(width), Number(height));
  return path;
}
