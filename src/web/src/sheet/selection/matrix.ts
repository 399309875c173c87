import type { Area } from '../../model/drawing';
import type { Matrix } from '../ink/floatInk';

export function shifted(dx: number, dy: number): Matrix {
  return [1, 0, 0, 1, dx, dy];
}

export function scaledAbout(x: number, y: number, sx: number, sy: number): Matrix {
  return [sx, 0, 0, sy, x - sx * x, y - sy * y];
}

/** @param angle Degrees clockwise. */
export function turnedAbout(x: number, y: number, angle: number): Matrix {
  const [sin, cos] = [Math.sin((angle * Math.PI) / 180), Math.cos((angle * Math.PI) / 180)];
  return [cos, sin, -sin, cos, x - cos * x + sin * y, y - sin * x - cos * y];
}

/** The corners of a box after a matrix, in the order in which one goes round it: x and y, one after the other. */
export function cornersOf([left, top, right, bottom]: Area, [a, b, c, d, e, f]: Matrix): number[] {
  return [
    [left, top],
    [right, top],
    [right, bottom],
    [left, bottom],
  ].flatMap(([x, y]) => [a * x! + c * y! + e, b * x! + d * y! + f]);
}

/** The upright box around a box after a matrix. */
export function mapped(box: Area, matrix: Matrix): Area {
  const corners = cornersOf(box, matrix);
  const xs = corners.filter((_, i) => i % 2 === 0);
  const ys = corners.filter((_, i) => i % 2 === 1);
  return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)];
}

/** At rest at 0, 45, 90 … degrees when it is near. */
export function resting(angle: number): number {
  const nearest = Math.round(angle / 45) * 45;
  return Math.abs(angle - nearest) <= 4 ? nearest : angle;
}
