/** Places on a page as pairs of 32-bit numbers, as they go over the live connection. */
export function writePlaces(places: readonly number[]): Uint8Array {
  const view = new DataView(new ArrayBuffer(places.length * 4));
  places.forEach((place, index) => view.setInt32(index * 4, Math.round(place)));
  return new Uint8Array(view.buffer);
}

/** The same back; what is left over of a broken piece is none. */
export function readPlaces(bytes: Uint8Array): number[] {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  return Array.from({ length: Math.floor(bytes.length / 8) * 2 }, (_, index) => view.getInt32(index * 4));
}
