/** A place in shares of a picture's sides, ten-thousandths. */
export type Share = [number, number];

export const one = 10_000;
export const wholeCut: readonly Share[] = [
  [0, 0],
  [one, 0],
  [one, one],
  [0, one],
];
/** As many as Core takes. */
const mostCorners = 400;

export const readCut = (text: string): Share[] =>
  text.split(' ').map((corner) => corner.split(',').map(Number) as Share);

export const writeCut = (corners: readonly Share[]): string =>
  corners.map(([x, y]) => `${within(x)},${within(y)}`).join(' ');

/** Left, top, right and bottom of an upright cut; undefined of any other. */
export function edgesOf(corners: readonly Share[]): [number, number, number, number] | undefined {
  if (corners.length !== 4) return undefined;
  const [[left, top], [right, also], [far, bottom], [near, foot]] = corners as [Share, Share, Share, Share];
  return also === top && far === right && near === left && foot === bottom ? [left, top, right, bottom] : undefined;
}

export const ofEdges = ([left, top, right, bottom]: readonly [number, number, number, number]): Share[] => [
  [left, top],
  [right, top],
  [right, bottom],
  [left, bottom],
];

/** A line drawn by hand with no more corners than may be. */
export function thinned(line: readonly Share[]): Share[] {
  const step = Math.ceil(line.length / mostCorners);
  return line.filter((_, i) => i % step === 0);
}

export const within = (share: number): number => Math.round(Math.max(0, Math.min(one, share)));
