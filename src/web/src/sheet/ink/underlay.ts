import type { Core } from '../../core/runtime';
import { assetPath } from '../../data/ownPapers';
import { type Area, drawPaper } from '../../model/drawing';
import { request } from '../../server/api';
import { readPacket } from './packet';
import { layersOf, type Under } from './sheetPaper';

const frozenType = 'application/vnd.calm-quill.frozen-page';

/** Loads what an own paper is made of, fitted into a sheet; undefined where it cannot be had, as without a connection before it was seen. */
export async function loadUnder(core: Core, space: string, asset: string, sheet: Area): Promise<Under | undefined> {
  try {
    const response = await request('GET', assetPath(space, asset));
    if (response.headers.get('Content-Type') === frozenType)
      return frozen(core, new Uint8Array(await response.arrayBuffer()), sheet);
    const picture = await createImageBitmap(await response.blob());
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
