// Writes glyphs.txt from the fonts that the front end ships: node make-glyphs.mjs FOLDER-OF-NODE-MODULES > glyphs.txt
// The folder needs the package fontkit besides the fonts (both SIL Open Font License). A line is a character, its advance, and its outline as path
// commands, in thousandths of an em, y down. Latin comes from the interface's font; Greek and Cyrillic, which that lacks, from the headings'.
import { createRequire } from 'node:module';
import { join } from 'node:path';

const modules = process.argv[2];
const fontkit = createRequire(join(modules, 'x.js'))('fontkit');
const range = (from, to) => Array.from({ length: to - from + 1 }, (_, i) => from + i);
const sources = [
  ['atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-wght-normal.woff2', [...range(0x20, 0x7e), ...range(0xa0, 0xff), 0x2013, 0x2014, 0x2018, 0x2019, 0x201c, 0x201d, 0x2022, 0x2026, 0x20ac]],
  ['atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-ext-wght-normal.woff2', range(0x100, 0x17f)],
  ['literata/files/literata-greek-wght-normal.woff2', range(0x384, 0x3ce)],
  ['literata/files/literata-cyrillic-wght-normal.woff2', range(0x400, 0x45f)],
];

const letters = { moveTo: 'M', lineTo: 'L', quadraticCurveTo: 'Q', bezierCurveTo: 'C', closePath: 'Z' };
const seen = new Set();
for (const [file, codes] of sources) {
  const font = fontkit.openSync(join(modules, '@fontsource-variable', file));
  const scale = 1000 / font.unitsPerEm;
  for (const code of codes) {
    if (seen.has(code) || !font.hasGlyphForCodePoint(code)) continue;
    seen.add(code);
    const glyph = font.glyphForCodePoint(code);
    const path = glyph.path.commands.map(({ command, args }) => letters[command] + args.map((value, i) => Math.round(value * scale) * (i % 2 === 0 ? 1 : -1)).join(' ')).join('');
    process.stdout.write(`${String.fromCodePoint(code)}${Math.round(glyph.advanceWidth * scale)} ${path}\n`.replaceAll('-0 ', '0 '));
  }
}
