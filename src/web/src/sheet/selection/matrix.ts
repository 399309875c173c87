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

/** The upright box around a box after a matrix. */
export function mapped([left, top, right, bottom]: Area, [a, b, c, d, e, f]: Matrix): Area {
  const corners = [
    [left, top],
    [right, top],
    [left, bottom],
    [right, bottom],
  ].map(([x, y]) => [a * x! + c * y! + e, b * x! + d * y! + f]);
  const xs = corners.map(([x]) => x!);
  const ys = corners.map(([, y]) => y!);
  return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)];
}

/** At rest at 0, 45, 90 … degrees when it is near. */
export function resting(angle: number): number {
  const nearest = Math.round(angle / 45) * 45;
  return Math.abs(angle - nearest) <= 4 ? nearest : angle;
}
