/** A picture whose channels are multiplied and moved, cut off at both ends; as `Tones` in Core says. */
export async function toned(bitmap: ImageBitmap, slope: number, added: number): Promise<ImageBitmap> {
  const canvas = new OffscreenCanvas(bitmap.width, bitmap.height);
  const context = canvas.getContext('2d')!;
  context.drawImage(bitmap, 0, 0);
  bitmap.close();
  const image = context.getImageData(0, 0, canvas.width, canvas.height);
  const table = Uint8ClampedArray.from({ length: 256 }, (_, value) => Math.round(value * slope + added * 255));
  const dots = image.data;
  for (let i = 0; i < dots.length; i += 4) {
    dots[i] = table[dots[i]!]!;
    dots[i + 1] = table[dots[i + 1]!]!;
    dots[i + 2] = table[dots[i + 2]!]!;
  }
  context.putImageData(image, 0, 0);
  return createImageBitmap(canvas);
}
