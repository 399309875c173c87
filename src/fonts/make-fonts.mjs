// Lays the fonts of typed text here, under the short names that Core calls them by, with their licence.
// In a folder: npm i the packages below at their versions (@expo-google-fonts/…, and @fontsource/stix-two-math), then node make-fonts.mjs FOLDER.
import { copyFileSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { inflateSync } from "node:zlib";

const all = ["", "bold", "italic", "bold-italic"];
const weights = {
  "": "400Regular",
  bold: "700Bold",
  italic: "400Regular_Italic",
  "bold-italic": "700Bold_Italic",
};

const fonts = [
  ["serif", "literata", "0.4.3", "Literata", all],
  ["sans", "source-sans-3", "0.4.1", "SourceSans3", all],
  ["mono", "jetbrains-mono", "0.4.1", "JetBrainsMono", all],
  ["round", "nunito", "0.4.2", "Nunito", all],
  ["hand", "caveat", "0.4.2", "Caveat", ["", "bold"]],
  ["arabic", "noto-sans-arabic", "0.4.3", "NotoSansArabic", [""]],
  ["armenian", "noto-sans-armenian", "0.4.2", "NotoSansArmenian", [""]],
  ["bengali", "noto-sans-bengali", "0.4.4", "NotoSansBengali", [""]],
  ["devanagari", "noto-sans-devanagari", "0.4.1", "NotoSansDevanagari", [""]],
  ["emoji", "noto-emoji", "0.4.7", "NotoEmoji", [""]],
  ["georgian", "noto-sans-georgian", "0.4.3", "NotoSansGeorgian", [""]],
  ["hebrew", "noto-sans-hebrew", "0.4.1", "NotoSansHebrew", [""]],
  ["tamil", "noto-sans-tamil", "0.4.3", "NotoSansTamil", [""]],
  ["thai", "noto-sans-thai", "0.4.2", "NotoSansThai", [""]],
];

// Formulas: half as large as the other packages have it, since nothing in it is for machines that draw with few dots.
const formulas = {
  name: "math",
  packed: "@fontsource/stix-two-math",
  version: "5.3.0",
  file: "files/stix-two-math-latin-400-normal.woff",
};

const [folder] = process.argv.slice(2);
const owners = [];
let licence = "";
for (const [name, packed, version, file, styles] of fonts) {
  const from = join(folder, "node_modules/@expo-google-fonts", packed);
  const found = JSON.parse(
    readFileSync(join(from, "package.json"), "utf8"),
  ).version;
  if (found !== version)
    throw new Error(`${packed} is ${found} and not ${version}.`);
  for (const style of styles)
    copyFileSync(
      join(from, weights[style], `${file}_${weights[style]}.ttf`),
      join(
        import.meta.dirname,
        `${[name, style].filter(Boolean).join("-")}.ttf`,
      ),
    );
  // All of them have one licence; it differs in whose font it is.
  const [owner, ...rest] = readFileSync(join(from, "LICENSE_FONT"), "utf8")
    .replaceAll("\r", "")
    .trim()
    .split("\n");
  owners.push(`${name}*.ttf: ${owner}`);
  licence = rest.join("\n").trim();
}
const from = join(folder, "node_modules", formulas.packed);
const found = JSON.parse(
  readFileSync(join(from, "package.json"), "utf8"),
).version;
if (found !== formulas.version)
  throw new Error(`${formulas.packed} is ${found} and not ${formulas.version}.`);
writeFileSync(
  join(import.meta.dirname, `${formulas.name}.ttf`),
  unpacked(readFileSync(join(from, formulas.file))),
);
const owner = readFileSync(join(from, "LICENSE"), "utf8").split("\n")[0].trim();
owners.push(`${formulas.name}*.ttf: ${owner}`);

/** The font in a WOFF file (W3C WOFF 1.0 §3 to 5), as it was before it was packed. */
function unpacked(woff) {
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

writeFileSync(
  join(import.meta.dirname, "LICENCE.txt"),
  `${owners.join("\n")}\n\n${licence}\n`,
);
