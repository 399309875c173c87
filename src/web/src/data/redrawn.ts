import { t } from '@lingui/core/macro';

/** A picture as large as this is made smaller before it is sent, where nothing else is said: A4 at 300 dots an inch. */
export const mostEdge = 3508;
const mostMegapixels = 120;
const quality = 0.9;
/** A drawing without a size of its own is drawn so large, pixels. */
const drawnEdge = 2048;

interface Wish {
  type: 'image/jpeg' | 'image/webp';
  /** The most pixels along its longer side. */
  edge?: number;
  /** The most pixels at all. */
  pixels?: number;
}

/** A picture of any kind that the browser reads, drawn anew no larger than is wished; as JPEG on white. Throws a sentence where it is none, or too large to be read. */
export async function redrawn(picture: Blob, { type, edge = mostEdge, pixels = Infinity }: Wish): Promise<Blob> {
  const size = await sizeOf(picture);
  if (size && size.width * size.height > mostMegapixels * 1e6)
    throw new Error(
      t`The picture has ${Math.round((size.width * size.height) / 1e6)} megapixels; the most is ${mostMegapixels}. Nothing was kept.`,
    );
  const image = await opened(picture);
  const { width, height } = image instanceof ImageBitmap ? image : drawnSize(image);
  const scale = Math.min(1, edge / Math.max(width, height), Math.sqrt(pixels / (width * height)));
  const canvas = new OffscreenCanvas(Math.max(1, Math.floor(width * scale)), Math.max(1, Math.floor(height * scale)));
  const context = canvas.getContext('2d')!;
  if (type === 'image/jpeg') {
    context.fillStyle = '#ffffff';
    context.fillRect(0, 0, canvas.width, canvas.height);
  }
  context.imageSmoothingQuality = 'high';
  context.drawImage(image, 0, 0, canvas.width, canvas.height);
  if (image instanceof ImageBitmap) image.close();
  // A browser that does not write WebP gives PNG instead, which keeps what is clear as well.
  return canvas.convertToBlob({ type, quality });
}

/** A drawing in SVG is shown as a picture, in which nothing runs and nothing is fetched. */
async function opened(picture: Blob): Promise<ImageBitmap | HTMLImageElement> {
  try {
    if (picture.type !== 'image/svg+xml') return await createImageBitmap(picture);
    const address = URL.createObjectURL(picture);
    try {
      const image = new Image();
      image.src = address;
      await image.decode();
      return image;
    } finally {
      URL.revokeObjectURL(address);
    }
  } catch {
    throw new Error(t`This is not a picture that can be read here. Nothing was kept.`);
  }
}

/** A drawing has as many pixels as one likes. */
function drawnSize({ naturalWidth, naturalHeight }: HTMLImageElement): { width: number; height: number } {
  const [width, height] = [naturalWidth || 300, naturalHeight || 150];
  const scale = drawnEdge / Math.max(width, height);
  return { width: width * scale, height: height * scale };
}

/** The size that a PNG or JPEG file says it has, before it is decoded: a small file can unfold to a huge picture. */
async function sizeOf(picture: Blob): Promise<{ width: number; height: number } | undefined> {
  const head = new DataView(await picture.slice(0, 256 * 1024).arrayBuffer());
  if (head.byteLength < 24) return undefined;
  if (head.getUint32(0) === 0x89504e47) return { width: head.getUint32(16), height: head.getUint32(20) };
  if (head.getUint16(0) !== 0xffd8) return undefined;
  // JPEG: segment by segment to the frame header (ITU-T T.81 §B.2.2).
  for (let at = 2; at + 9 < head.byteLength; at += 2 + head.getUint16(at + 2)) {
    const marker = head.getUint16(at);
    if (marker >= 0xffc0 && marker <= 0xffcf && ![0xffc4, 0xffc8, 0xffcc].includes(marker))
      return { width: head.getUint16(at + 7), height: head.getUint16(at + 5) };
    if (marker < 0xff01) return undefined;
  }
  return undefined;
}
