import type { Core } from '../../../core/runtime';
import { nextTurn } from '../../ink/soon';

/** So many dots are worked on before the screen has its turn. */
const dotsATurn = 60_000;

/**
 * A picture with its paper cleared away; undefined where it was given up. It says how far it is, from 0 to 1.
 *
 * @param edge The most dots along its longer side.
 * @param goesOn Told how far it is; false gives up.
 */
export async function clearPaper(
  core: Core,
  file: Blob,
  strength: number,
  edge: number,
  goesOn: (share: number) => boolean,
): Promise<OffscreenCanvas | undefined> {
  const whole = await createImageBitmap(file);
  const scale = Math.min(1, edge / Math.max(whole.width, whole.height));
  const canvas = new OffscreenCanvas(
    Math.max(1, Math.round(whole.width * scale)),
    Math.max(1, Math.round(whole.height * scale)),
  );
  const { width, height } = canvas;
  const context = canvas.getContext('2d', { willReadFrequently: true })!;
  context.imageSmoothingQuality = 'high';
  context.drawImage(whole, 0, 0, width, height);
  whole.close();
  const { ThingBridge } = core;
  const rows = Math.max(1, Math.floor(dotsATurn / width));
  const band = (from: number) => context.getImageData(0, from, width, Math.min(rows, height - from));
  ThingBridge.BeginClearing(width, height);
  for (let from = 0; from < height; from += rows) {
    ThingBridge.LookAt(new Uint8Array(band(from).data.buffer), from);
    await nextTurn();
    if (!goesOn((0.3 * from) / height)) return undefined;
  }
  ThingBridge.Settle();
  for (let from = 0; from < height; from += rows) {
    const image = band(from);
    image.data.set(ThingBridge.ClearRows(new Uint8Array(image.data.buffer), from, strength));
    context.putImageData(image, 0, from);
    await nextTurn();
    if (!goesOn(0.3 + (0.7 * from) / height)) return undefined;
  }
  return canvas;
}
