import { partsFor, pictureFor } from './bitmaps';
import type { Brush } from './grain';

/** A picture as Core hands it out. */
export interface PictureInk {
  asset: string;
  /** Where its own measures lie: x' = a·x + c·y + e, y' = b·x + d·y + f. */
  place: readonly [number, number, number, number, number, number];
  /** The whole picture in its own measures, 0.01 mm. */
  width: number;
  height: number;
  /** Which page of a PDF file it is, from 1; 0 for a picture. */
  leaf: number;
  /** How much it covers, 0 to 255. */
  alpha: number;
  /** A channel from 0 to 1 becomes slope times it, and what is added. */
  slope: number;
  added: number;
  /** What is shown of it; nothing where that is all. */
  cut?: Path2D;
}

/** How a picture looks whose file is not there yet. */
const missingFill = '#b9b4a633';
const missingLine = '#b9b4a6';
const missingWidth = 20;

/** Reads a picture of a packet. */
export function readInkPicture(
  words: Uint32Array,
  singles: Float32Array,
  start: number,
): { picture: PictureInk; next: number } {
  const place = [...singles.subarray(start, start + 6)] as unknown as PictureInk['place'];
  const [width, height] = [singles[start + 6]!, singles[start + 7]!];
  const digits = Array.from(words.subarray(start + 8, start + 12), (part) => part.toString(16).padStart(8, '0')).join(
    '',
  );
  const asset = digits.replace(/^(.{8})(.{4})(.{4})(.{4})(.{12})$/, '$1-$2-$3-$4-$5');
  const [alpha, slope, added, leaf, corners] = [
    words[start + 12]!,
    singles[start + 13]!,
    singles[start + 14]!,
    words[start + 15]!,
    words[start + 16]!,
  ];
  let at = start + 17;
  const picture: PictureInk = { asset, place, width, height, leaf, alpha, slope, added };
  if (corners > 0) {
    const cut = new Path2D();
    for (let corner = 0; corner < corners; corner++, at += 2) cut.lineTo(singles[at]!, singles[at + 1]!);
    cut.closePath();
    picture.cut = cut;
  }
  return { picture, next: at };
}

/** Draws a picture; an empty frame until its file is there. */
export function paintPicture(context: Brush, picture: PictureInk): void {
  const { place, width, height, alpha, cut } = picture;
  context.save();
  context.transform(...place);
  const { a, b, c, d } = context.getTransform();
  const dots = Math.max(Math.hypot(a, b) * width, Math.hypot(c, d) * height);
  const bitmap = pictureFor(picture, dots);
  if (bitmap) {
    if (cut) context.clip(cut);
    context.globalAlpha *= alpha / 255;
    context.imageSmoothingQuality = 'high';
    context.drawImage(bitmap, 0, 0, width, height);
    if (picture.leaf > 0)
      for (const { bitmap: part, at } of partsFor(picture, dots, sightOf(context, width, height)))
        context.drawImage(part, at.left * width, at.top * height, at.width * width, at.height * height);
  } else {
    const frame = cut ?? whole(width, height);
    context.fillStyle = missingFill;
    context.fill(frame);
    context.strokeStyle = missingLine;
    context.lineWidth = missingWidth;
    context.stroke(frame);
  }
  context.restore();
}

/** What of a picture lies on the canvas, as shares of its width and height. */
function sightOf(context: Brush, width: number, height: number) {
  const back = context.getTransform().inverse();
  const { width: wide, height: high } = context.canvas;
  const corners = [
    [0, 0],
    [wide, 0],
    [0, high],
    [wide, high],
  ].map(([x, y]) => back.transformPoint({ x: x!, y: y! }));
  const range = (places: number[]) => {
    const least = Math.min(1, Math.max(0, Math.min(...places)));
    return [least, Math.min(1, Math.max(0, Math.max(...places))) - least] as const;
  };
  const [left, across] = range(corners.map(({ x }) => x / width));
  const [top, down] = range(corners.map(({ y }) => y / height));
  return { left, top, width: across, height: down };
}

function whole(width: number, height: number): Path2D {
  const path = new Path2D();
  path.rect(0, 0, width, height);
  return path;
}
