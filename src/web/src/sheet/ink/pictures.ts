import { pictureFor } from './bitmaps';
import type { Brush } from './grain';

/** A picture as Core hands it out. */
export interface PictureInk {
  asset: string;
  /** Where its own measures lie: x' = a·x + c·y + e, y' = b·x + d·y + f. */
  place: readonly [number, number, number, number, number, number];
  /** The whole picture in its own measures, 0.01 mm. */
  width: number;
  height: number;
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
  const [alpha, slope, added, corners] = [
    words[start + 12]!,
    singles[start + 13]!,
    singles[start + 14]!,
    words[start + 15]!,
  ];
  let at = start + 16;
  const picture: PictureInk = { asset, place, width, height, alpha, slope, added };
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
  const bitmap = pictureFor(picture, Math.max(Math.hypot(a, b) * width, Math.hypot(c, d) * height));
  if (bitmap) {
    if (cut) context.clip(cut);
    context.globalAlpha *= alpha / 255;
    context.imageSmoothingQuality = 'high';
    context.drawImage(bitmap, 0, 0, width, height);
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

function whole(width: number, height: number): Path2D {
  const path = new Path2D();
  path.rect(0, 0, width, height);
  return path;
}
