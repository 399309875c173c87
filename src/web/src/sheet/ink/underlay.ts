import type { Core } from '../../core/runtime';
import { frozenType } from '../../data/ownPapers';
import { type Area, drawPaper } from '../../model/drawing';
import { readPacket } from './packet';
import { layersOf, type Under } from './sheetPaper';

/** What an own paper is made of, fitted into a sheet; undefined where it cannot be read. */
export async function fitUnder(core: Core, file: Blob, sheet: Area): Promise<Under | undefined> {
  try {
    if (file.type === frozenType) return frozen(core, new Uint8Array(await file.arrayBuffer()), sheet);
    const picture = await createImageBitmap(file);
    const { scale, dx, dy } = fit(picture.width, picture.height, sheet);
    return { picture, area: [dx, dy, dx + picture.width * scale, dy + picture.height * scale] };
  } catch {
    return undefined;
  }
}

/** A page as it was: its paper's text up to a line break, then its operations. */
function frozen(core: Core, bytes: Uint8Array, sheet: Area): Under {
  const end = bytes.indexOf(10);
  const drawing = drawPaper(core, new TextDecoder().decode(bytes.subarray(0, end)));
  const handle = core.DocumentBridge.Open(3);
  core.DocumentBridge.Apply(handle, bytes.slice(end + 1));
  const ink = readPacket(
    core.PageBridge.TakeChanged(handle, core.PageBridge.OpenSurface(handle, false), 100_000),
  ).filter((item) => item.shown);
  core.DocumentBridge.Close(handle);
  const [left, top, right, bottom] = drawing.sheet;
  return { layers: layersOf(drawing), ink, ...fit(right - left, bottom - top, sheet) };
}

function fit(
  width: number,
  height: number,
  [left, top, right, bottom]: Area,
): { scale: number; dx: number; dy: number } {
  const scale = Math.min((right - left) / width, (bottom - top) / height);
  return { scale, dx: left + (right - left - width * scale) / 2, dy: top + (bottom - top - height * scale) / 2 };
}
