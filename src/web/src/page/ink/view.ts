/** Where the sheet lies on the screen: page units (0.01 mm) times `scale`, plus `x`, `y`, give CSS pixels. */
export interface View {
  scale: number;
  x: number;
  y: number;
}

/** CSS pixels a page unit at true size, by CSS's own inch of 96 pixels. */
export const trueScale = 96 / 2540;

export const leastScale = trueScale * 0.25;
export const mostScale = trueScale * 8;

/** What stands over the desk at its sides, in CSS pixels: the tray, and what undoes and scales. */
export interface Room {
  left: number;
  right: number;
}

/** So wide a sheet is at least, where the screen allows it, before it is made to stand clear of what is at the sides. */
const leastFree = 340;

/** The sheet's whole width, clear of what stands at the sides where there is room, its head at the top. */
export function fitWidth(paperWidth: number, width: number, height: number, paperHeight: number, room: Room): View {
  const { left, right } = width - room.left - room.right >= leastFree ? room : { left: 0, right: 0 };
  const free = width - left - right;
  const scale = clampScale(Math.min((free - 24) / paperWidth, Math.max(600 / paperWidth, (height - 48) / paperHeight)));
  // In the middle of the desk, unless that would put it under what stands at a side.
  const x = (width - paperWidth * scale) / 2;
  return { scale, x: Math.max(left + 12, Math.min(x, width - right - 12 - paperWidth * scale)), y: 16 };
}

export function zoomAt(view: View, factor: number, px: number, py: number): View {
  const scale = clampScale(view.scale * factor);
  const grown = scale / view.scale;
  return { scale, x: px - (px - view.x) * grown, y: py - (py - view.y) * grown };
}

/** Keeps a part of the sheet in sight. */
export function keepInSight(view: View, paperWidth: number, paperHeight: number, width: number, height: number): View {
  const seen = 80;
  return {
    scale: view.scale,
    x: Math.min(Math.max(view.x, seen - paperWidth * view.scale), width - seen),
    y: Math.min(Math.max(view.y, seen - paperHeight * view.scale), height - seen),
  };
}

function clampScale(scale: number): number {
  return Math.min(Math.max(scale, leastScale), mostScale);
}
