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

/** The sheet's whole width with a margin, its head at the top. */
export function fitWidth(paperWidth: number, width: number, height: number, paperHeight: number): View {
  const scale = clampScale(Math.min((width - 24) / paperWidth, Math.max(600 / paperWidth, (height - 48) / paperHeight)));
  return { scale, x: (width - paperWidth * scale) / 2, y: 16 };
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
