/** Twelve dots a millimetre: about 300 an inch. */
const pixelsAMillimetre = 12;
const mostPixels = 8_000;

/** Saves a page as a PNG, drawn by the browser from the same SVG that can be saved by itself. */
export async function downloadPng(space: string, page: string, title: string): Promise<void> {
  const picture = new Image();
  picture.src = `/api/spaces/${space}/pages/${page}/export.svg`;
  await picture.decode();
  const scale = Math.min(
    (pixelsAMillimetre * 25.4) / 96,
    mostPixels / Math.max(picture.naturalWidth, picture.naturalHeight),
  );
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [Math.round(picture.naturalWidth * scale), Math.round(picture.naturalHeight * scale)];
  canvas.getContext('2d')!.drawImage(picture, 0, 0, canvas.width, canvas.height);
  const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/png'));
  if (!blob) return;
  const link = document.createElement('a');
  link.href = URL.createObjectURL(blob);
  link.download = `${title || 'Page'}.png`;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}
