/** Batches that Core gives one after the other, each after its length in four bytes, lowest first. */
export function unframed(bytes: Uint8Array): Uint8Array[] {
  const lengths = new DataView(bytes.buffer, bytes.byteOffset);
  const batches: Uint8Array[] = [];
  for (let at = 0; at < bytes.length;) {
    const end = at + frameHead + lengths.getUint32(at, true);
    batches.push(bytes.slice(at + frameHead, end));
    at = end;
  }
  return batches;
}

/** So many bytes stand before each batch. */
export const frameHead = 4;

/** The other way round. */
export function framed(batches: readonly Uint8Array[]): Uint8Array<ArrayBuffer> {
  const whole = new Uint8Array(batches.reduce((sum, batch) => sum + frameHead + batch.length, 0));
  const lengths = new DataView(whole.buffer);
  let at = 0;
  for (const batch of batches) {
    lengths.setUint32(at, batch.length, true);
    whole.set(batch, at + frameHead);
    at += frameHead + batch.length;
  }
  return whole;
}
