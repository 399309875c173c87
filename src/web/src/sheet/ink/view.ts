import type { Area } from '../../model/drawing';

/** Where the sheet lies on the screen: page units (0.01 mm) times `scale`, plus `x`, `y`, give CSS pixels. */
export interface View {
  scale: number;
  x: number;
  y: number;
}

const calibrationKey = 'quill.true-size';

/** How much larger or smaller than CSS's own inch of 96 pixels things must be on this screen to be true to size, as the person measured it. */
export function calibration(): number {
  const kept = Number(localStorage.getItem(calibrationKey));
  return kept > 0.2 && kept < 5 ? kept : 1;
}

export function calibrate(factor: number): void {
  localStorage.setItem(calibrationKey, String(factor));
}

/** CSS pixels a page unit at true size. */
export function trueScale(): number {
  return (96 / 2540) * calibration();
}

const leastShare = 0.25;
const mostShare = 8;

/** What stands over the desk at its sides, in CSS pixels: the tray, and what undoes and scales. */
export interface Room {
  left: number;
  right: number;
}

/** So wide a sheet is at least, where the screen allows it, before it is made to stand clear of what is at the sides. */
const leastFree = 300;
const head = 16;
/** A screen narrower than this gives nearly all its width to the sheet, pixels. */
const narrow = 960;
const narrowEdge = 2;
const sideEdge = 12;
/** On a screen that lies across, the sheet has at least this share of its width, if it is not to leave it. */
const leastShareAcross = 0.62;

/** How a page is laid into the desk. */
export type Fitting = 'width' | 'page' | 'true';

/** The sheet at a fitting, clear of what stands at the sides where there is room, its head at the top. */
export function fitted(fitting: Fitting, sheet: Area, width: number, height: number, room: Room): View {
  const { left, right, edge } = clearOf(room, width);
  const free = width - left - right;
  const [wide, high] = [sheet[2] - sheet[0], sheet[3] - sheet[1]];
  const full = (free - 2 * edge) / wide;
  const scale = clampScale(
    fitting === 'true' ? trueScale() : fitting === 'page' ? Math.min(full, (height - 2 * head) / high) : full,
  );
  const top = width < narrow ? narrowEdge : head;
  return {
    scale,
    x: besideRoom(wide * scale, width, left, right, edge) - sheet[0] * scale,
    y: top - sheet[1] * scale,
  };
}

/** What is kept free at the sides, where there is room for it, and how near to that the sheet comes. */
function clearOf(room: Room, width: number): Room & { edge: number } {
  const { left, right } = width - room.left - room.right >= leastFree ? room : { left: 0, right: 0 };
  return { left, right, edge: width < narrow ? narrowEdge : sideEdge };
}

/** In the middle, unless that would put it under what stands at a side. */
function besideRoom(wide: number, width: number, left: number, right: number, edge: number): number {
  return Math.max(left + edge, Math.min((width - wide) / 2, width - right - edge - wide));
}

/** A comfortable first look: the whole width on an upright screen; on one that lies across, no wider than makes a page's height useful. */
export function firstLook(sheet: Area, width: number, height: number, room: Room): View {
  const [wide, high] = [sheet[2] - sheet[0], sheet[3] - sheet[1]];
  const full = fitted('width', sheet, width, height, room);
  if (height >= width) return full;
  const scale = clampScale(Math.min(full.scale, Math.max((leastShareAcross * width) / wide, (height - 48) / high)));
  const { left, right, edge } = clearOf(room, width);
  return { scale, x: besideRoom(wide * scale, width, left, right, edge) - sheet[0] * scale, y: full.y };
}

/** The part of a page that somebody else sees, as large as the screen here is wide. */
export function asSeen(seen: { x: number; y: number; width: number }, width: number, height: number): View {
  const scale = width / seen.width;
  return { scale, x: width / 2 - seen.x * scale, y: height / 2 - seen.y * scale };
}

/** Where an area of the page lies on the screen, CSS pixels. */
export function toScreen(
  [left, top, right, bottom]: Area,
  view: View,
): { left: number; top: number; width: number; height: number } {
  return {
    left: left * view.scale + view.x,
    top: top * view.scale + view.y,
    width: (right - left) * view.scale,
    height: (bottom - top) * view.scale,
  };
}

/** Where a pointer is on the page, in page units; `desk` is where the view begins on the screen. */
export function toPage(
  { clientX, clientY }: { clientX: number; clientY: number },
  desk: { left: number; top: number },
  view: View,
): { x: number; y: number } {
  return { x: (clientX - desk.left - view.x) / view.scale, y: (clientY - desk.top - view.y) / view.scale };
}

/** A place on the page in the measures of a thing that lies so on it. */
export function ownPlace(
  [a, b, c, d, e, f]: readonly [number, number, number, number, number, number],
  page: { x: number; y: number },
): { x: number; y: number } {
  const [x, y, area] = [page.x - e, page.y - f, a * d - b * c];
  return { x: (x * d - y * c) / area, y: (y * a - x * b) / area };
}

export function zoomAt(view: View, factor: number, px: number, py: number): View {
  const scale = clampScale(view.scale * factor);
  const grown = scale / view.scale;
  return { scale, x: px - (px - view.x) * grown, y: py - (py - view.y) * grown };
}

/** A view on whole pixels of the screen, so that a picture can be moved without being painted anew. */
export function snapped(view: View, ratio: number): View {
  return { scale: view.scale, x: Math.round(view.x * ratio) / ratio, y: Math.round(view.y * ratio) / ratio };
}

/** Keeps a part of the sheet in sight. */
export function keepInSight(view: View, sheet: Area, width: number, height: number): View {
  const seen = 80;
  return {
    scale: view.scale,
    x: Math.min(Math.max(view.x, seen - sheet[2] * view.scale), width - seen - sheet[0] * view.scale),
    y: Math.min(Math.max(view.y, seen - sheet[3] * view.scale), height - seen - sheet[1] * view.scale),
  };
}

function clampScale(scale: number): number {
  return Math.min(Math.max(scale, trueScale() * leastShare), trueScale() * mostShare);
}
