/** So many pixels of a canvas are painted for one of CSS. */
export function pixelRatio(): number {
  return Math.min(devicePixelRatio, 3);
}

/** Gives a canvas as many pixels as the screen has for it. */
export function sizeCanvas(canvas: HTMLCanvasElement, width: number, height: number): void {
  const ratio = pixelRatio();
  canvas.width = Math.round(width * ratio);
  canvas.height = Math.round(height * ratio);
}

/** A canvas that covers its holder and lets pointers through. */
export function canvasIn(holder: HTMLElement): HTMLCanvasElement {
  const canvas = document.createElement('canvas');
  canvas.className = 'pointer-events-none absolute inset-0 size-full origin-top-left';
  canvas.setAttribute('aria-hidden', 'true');
  holder.append(canvas);
  return canvas;
}
