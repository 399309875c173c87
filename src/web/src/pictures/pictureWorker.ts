import { paintPicture, readPicture } from './smallPicture';

/** A picture to be painted so wide, in pixels. */
export interface Wish {
  address: string;
  width: number;
}

/** The picture painted; nothing when there is none, and `other` when the browser has to show it. */
export interface Painted extends Wish {
  picture?: Blob;
  other?: boolean;
}

addEventListener('message', ({ data }: MessageEvent<Wish>) => void paint(data).then((painted) => postMessage(painted)));

async function paint({ address, width }: Wish): Promise<Painted> {
  const response = await fetch(address).catch(() => undefined);
  if (!response?.ok) return { address, width };
  const picture = readPicture(await response.text());
  if (!picture) return { address, width, other: true };
  const canvas = new OffscreenCanvas(width, Math.max(1, Math.round((width * picture.height) / picture.width)));
  paintPicture(canvas, picture);
  return { address, width, picture: await canvas.convertToBlob() };
}
