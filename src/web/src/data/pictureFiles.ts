import type { FileLook } from '../core/assetBridge';
import type { Kept } from '../sync/assets';
import type { Workspace } from '../sync/workspace';
import { redrawn } from './redrawn';

/** The most pixels of a picture that is drawn anew: so many may unfold everywhere. */
const mostPixels = 40_000_000;

/** Files that may be chosen as pictures. */
export const pictureTypes = 'image/jpeg,image/png,image/webp,image/gif,image/heic,image/heif,image/avif,image/svg+xml';

/** Whether a file calls itself a picture. */
export const isPictureFile = (file: Blob): boolean => file.type.startsWith('image/');

/**
 * Keeps a picture for a space as large as it is, to lie on a page. What it says of where it was taken goes; what no page can show as it is, such as one that was held
 * sideways, a moving one or a drawing, is drawn anew. Throws a sentence where it is none.
 */
export async function keepWhole({ core, assets }: Workspace, space: string, picture: Blob): Promise<Kept> {
  const bytes = new Uint8Array(await picture.arrayBuffer());
  const look = (file: Uint8Array) => JSON.parse(core.AssetBridge.Look(file)) as FileLook;
  const { type, width, turned } = look(bytes);
  if (width > 0 && !turned) {
    const cleaned = new Uint8Array(core.AssetBridge.Cleaned(bytes));
    if (!look(cleaned).problem) return assets.keep(space, new Blob([cleaned], { type }));
  }
  const isPhoto = type === 'image/jpeg' || /hei[cf]|avif/.test(picture.type);
  return assets.keep(
    space,
    await redrawn(picture, { type: isPhoto ? 'image/jpeg' : 'image/webp', edge: Infinity, pixels: mostPixels }),
  );
}

/** Keeps a file for a space as it is; only pictures lose what they say of where they were taken. */
export async function keepAny({ core, assets }: Workspace, space: string, file: Blob): Promise<string> {
  const cleaned = new Uint8Array(core.AssetBridge.Cleaned(new Uint8Array(await file.arrayBuffer())));
  return (await assets.keep(space, new Blob([cleaned]))).asset;
}
