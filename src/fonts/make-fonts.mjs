// Lays the fonts of typed text here, under the short names that Core calls them by, with their licence.
// In a folder: npm i the packages below at their versions (@expo-google-fonts/…, and @fontsource/stix-two-math), then node make-fonts.mjs FOLDER.
import { copyFileSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { unpacked } from "./woff.mjs";

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
  ["ethiopic", "noto-sans-ethiopic", "0.4.2", "NotoSansEthiopic", [""]],
  ["gujarati", "noto-sans-gujarati", "0.4.2", "NotoSansGujarati", [""]],
  ["gurmukhi", "noto-sans-gurmukhi", "0.4.1", "NotoSansGurmukhi", [""]],
  ["kannada", "noto-sans-kannada", "0.4.3", "NotoSansKannada", [""]],
  ["khmer", "noto-sans-khmer", "0.4.3", "NotoSansKhmer", [""]],
  ["lao", "noto-sans-lao", "0.4.2", "NotoSansLao", [""]],
  ["malayalam", "noto-sans-malayalam", "0.4.2", "NotoSansMalayalam", [""]],
  ["myanmar", "noto-sans-myanmar", "0.4.2", "NotoSansMyanmar", [""]],
  ["oriya", "noto-sans-oriya", "0.4.2", "NotoSansOriya", [""]],
  ["sinhala", "noto-sans-sinhala", "0.4.2", "NotoSansSinhala", [""]],
  ["telugu", "noto-sans-telugu", "0.4.2", "NotoSansTelugu", [""]],
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

// The slices of make-eastern.mjs, whose packages do not say it in full.
owners.push(
  "eastern/*.ttf: Copyright 2014-2021 Adobe (http://www.adobe.com/), with Reserved Font Name 'Source'",
);

writeFileSync(
  join(import.meta.dirname, "LICENCE.txt"),
  `${owners.join("\n")}\n\n${licence}\n`,
);
