/** left, top, right, bottom in 0.01 mm, or in pixels. */
export type Box = readonly [number, number, number, number];

export function meets(a: Box, b: Box): boolean {
  return a[0] <= b[2] && a[2] >= b[0] && a[1] <= b[3] && a[3] >= b[1];
}

/** The box around two; of the second alone where there is no first. */
export function union(a: Box | undefined, b: Box): Box {
  return a ? [Math.min(a[0], b[0]), Math.min(a[1], b[1]), Math.max(a[2], b[2]), Math.max(a[3], b[3])] : b;
}
