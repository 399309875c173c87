/** Batches that Core gives one after the other, each after its length in four bytes, lowest first. */
export function unframed(bytes: Uint8Array): Uint8Array[] {
  const lengths = new DataView(bytes.buffer, bytes.byteOffset);
  const batches: Uint8Array[] = [];
  for (let at = 0; at < bytes.length;) {
    const end = at + 4 + lengths.getUint32(at, true);
    batches.push(bytes.slice(at + 4, end));
    at = end;
  }
  return batches;
}
