// Lays the fonts of Chinese, Japanese and Korean in the folder “eastern”, each in slices of signs that are often used together, so that a text brings what it needs
// and no more; and which slice has which sign where Core reads it.
// In a folder: npm i the packages below at their versions (@fontsource/…, @expo-google-fonts/…) and subset-font, then node make-eastern.mjs FOLDER.
import { mkdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { createRequire } from "node:module";
import { join } from "node:path";
import { signsOf, unpacked } from "./woff.mjs";

const fonts = [
  ["chinese", "noto-sans-sc"],
  ["japanese", "noto-sans-jp"],
  ["korean", "noto-sans-kr"],
];
const version = "5.3.0";

/** The whole font of Chinese, for the rarer signs that are in no slice: those of tradition, of names and of old books, 256 at a time in their order. */
const whole = ["chinese", "noto-sans-sc", "0.4.3", "400Regular/NotoSansSC_400Regular.ttf"];
const atOnce = 256;

/** First and last code point of what is set in them; everything else in them other fonts have. */
const eastern = [
  [0x1100, 0x11ff],
  [0x2e80, 0x312f],
  [0x3130, 0x4dbf],
  [0x4e00, 0x9fff],
  [0xa960, 0xa97f],
  [0xac00, 0xd7ff],
  [0xf900, 0xfaff],
  [0xfe30, 0xfe4f],
  [0xff00, 0xffef],
  [0x20000, 0x323af],
];
const isEastern = (sign) =>
  eastern.some(([first, last]) => first <= sign && sign <= last);

const [folder] = process.argv.slice(2);
const out = join(import.meta.dirname, "eastern");
rmSync(out, { recursive: true, force: true });
mkdirSync(out);
const lines = [];
for (const [name, packed] of fonts) {
  const from = packageAt("@fontsource", packed, version);
  const slices = JSON.parse(readFileSync(join(from, "unicode.json"), "utf8"));
  const done = new Set();
  for (const slice of Object.keys(slices)) {
    const number = /^\[(\d+)\]$/.exec(slice)?.[1];
    if (number === undefined) continue;
    const font = unpacked(
      readFileSync(join(from, `files/${packed}-${number}-400-normal.woff`)),
    );
    const signs = [...signsOf(font)]
      .filter((sign) => isEastern(sign) && !done.has(sign))
      .sort((a, b) => a - b);
    if (signs.length === 0) continue;
    for (const sign of signs) done.add(sign);
    put(`${name}-${number}`, font, signs);
  }

  if (name !== whole[0]) continue;
  const subsetFont = createRequire(join(folder, "x"))("subset-font");
  const font = readFileSync(
    join(packageAt("@expo-google-fonts", whole[1], whole[2]), whole[3]),
  );
  const rest = [...signsOf(font)]
    .filter((sign) => isEastern(sign) && !done.has(sign))
    .sort((a, b) => a - b);
  for (let i = 0; i < rest.length; i += atOnce) {
    const signs = rest.slice(i, i + atOnce);
    const slice = await subsetFont(font, String.fromCodePoint(...signs), {
      targetFormat: "truetype",
    });
    put(`${name}-rest${i / atOnce}`, slice, signs);
  }
}
writeFileSync(
  join(import.meta.dirname, "../CalmQuill.Core/Typesetting/slices.txt"),
  `${lines.join("\n")}\n`,
);

function packageAt(scope, packed, wanted) {
  const from = join(folder, "node_modules", scope, packed);
  const found = JSON.parse(
    readFileSync(join(from, "package.json"), "utf8"),
  ).version;
  if (found !== wanted)
    throw new Error(`${packed} is ${found} and not ${wanted}.`);
  return from;
}

function put(name, font, signs) {
  writeFileSync(join(out, `${name}.ttf`), font);
  lines.push(`${name} ${runs(signs)}`);
}

/** Runs of signs: how far each begins behind the one before, and how many more follow; to base 36. */
function runs(signs) {
  const all = [];
  let behind = 0;
  for (let i = 0; i < signs.length; ) {
    let more = 0;
    while (signs[i + more + 1] === signs[i] + more + 1) more++;
    const gap = (signs[i] - behind).toString(36);
    all.push(more > 0 ? `${gap}+${more.toString(36)}` : gap);
    behind = signs[i] + more;
    i += more + 1;
  }
  return all.join(" ");
}
