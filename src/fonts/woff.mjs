// Fonts as they come in packages for the web.
import { inflateSync } from "node:zlib";

/** The font in a WOFF file (W3C WOFF 1.0 §3 to 5), as it was before it was packed. */
export function unpacked(woff) {
  const count = woff.readUInt16BE(12);
  const head = Buffer.alloc(12 + 16 * count);
  head.writeUInt32BE(woff.readUInt32BE(4), 0);
  head.writeUInt16BE(count, 4);
  const fits = 2 ** Math.floor(Math.log2(count));
  head.writeUInt16BE(fits * 16, 6);
  head.writeUInt16BE(Math.log2(fits), 8);
  head.writeUInt16BE((count - fits) * 16, 10);
  const parts = [head];
  let at = head.length;
  for (let i = 0; i < count; i++) {
    const row = 44 + 20 * i;
    const [start, packed, length, sum] = [4, 8, 12, 16].map((field) =>
      woff.readUInt32BE(row + field),
    );
    const stored = woff.subarray(start, start + packed);
    const table = packed < length ? inflateSync(stored) : stored;
    head.set(woff.subarray(row, row + 4), 12 + 16 * i);
    [sum, at, length].forEach((value, field) =>
      head.writeUInt32BE(value, 16 + 16 * i + 4 * field),
    );
    parts.push(table, Buffer.alloc(-length & 3));
    at += length + (-length & 3);
  }
  return Buffer.concat(parts);
}

/** The signs that a font has glyphs of, from its table “cmap” in the formats 4 and 12 (ISO/IEC 14496-22 §5.2.1). */
export function signsOf(font) {
  const count = font.readUInt16BE(4);
  const rows = Array.from({ length: count }, (_, i) => 12 + 16 * i);
  const row = rows.find((at) => font.toString("latin1", at, at + 4) === "cmap");
  const cmap = font.subarray(font.readUInt32BE(row + 8));
  const signs = new Set();
  for (let i = 0; i < cmap.readUInt16BE(2); i++) {
    const map = cmap.subarray(cmap.readUInt32BE(8 + 8 * i));
    const format = map.readUInt16BE(0);
    if (format === 12) {
      for (let group = 0; group < map.readUInt32BE(12); group++) {
        const [first, last] = [16, 20].map((field) =>
          map.readUInt32BE(12 * group + field),
        );
        for (let sign = first; sign <= last; sign++) signs.add(sign);
      }
    }
    if (format !== 4) continue;
    const twice = map.readUInt16BE(6);
    for (let segment = 0; segment < twice; segment += 2) {
      const [last, first, delta, offset] = [0, 1, 2, 3].map((field) =>
        map.readUInt16BE(14 + segment + field * twice + (field > 0 ? 2 : 0)),
      );
      for (let sign = first; sign <= last && sign < 0xffff; sign++) {
        const glyph =
          offset === 0
            ? (sign + delta) & 0xffff
            : map.readUInt16BE(
                16 + segment + 3 * twice + offset + 2 * (sign - first),
              );
        if (glyph !== 0) signs.add(sign);
      }
    }
  }
  return signs;
}
