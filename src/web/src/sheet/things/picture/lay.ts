import type { Area } from '../../../model/drawing';
import type { Kept } from '../../../sync/assets';

/** So many dots of a picture take an inch, unless that is too large for the sheet; 0.01 mm. */
const dotsAnInch = 200;
const inch = 2540;
/** At most so much of the sheet's width and height it takes, and at least so much, 0.01 mm. */
const mostAcross = 0.6;
const mostDown = 0.5;
const least = 1500;
/** Several lie so far from each other, 0.01 mm. */
const apart = 800;

/** Where pictures lie that come onto a sheet around a place: left, top, width and height of each. */
export function layAround(
  pictures: readonly Pick<Kept, 'width' | 'height'>[],
  [left, top, right, bottom]: Area,
  { x, y }: { x: number; y: number },
): number[] {
  const [across, down] = [right - left, bottom - top];
  return pictures.flatMap(({ width, height }, i) => {
    const natural = Math.max((width / dotsAnInch) * inch, least);
    const wide = Math.min(natural, across * mostAcross, (down * mostDown * width) / height);
    const high = (wide * height) / width;
    const step = (i - (pictures.length - 1) / 2) * apart;
    return [
      within(x - wide / 2 + step, left, right - wide),
      within(y - high / 2 + step, top, bottom - high),
      wide,
      high,
    ].map(Math.round);
  });
}

const within = (at: number, least: number, most: number): number => Math.max(least, Math.min(at, most));
