// Lays the fonts of typed text here, under the short names that Core calls them by, with their licence.
// In a folder: npm i the packages below at their versions (@expo-google-fonts/…), then node make-fonts.mjs FOLDER.
import { copyFileSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";

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
writeFileSync(
  join(import.meta.dirname, "LICENCE.txt"),
  `${owners.join("\n")}\n\n${licence}\n`,
);
