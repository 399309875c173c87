// Writes folding.txt from the Unicode data of the Node.js that runs it: node make-folding.mjs > folding.txt
// A line is a character and what it is folded to: compatibility decomposition (UAX #15, NFKD), lower case, combining marks dropped.
// Letters that Unicode does not decompose, though people type them plainly, are named here.
const plain = { ß: 'ss', æ: 'ae', œ: 'oe', ø: 'o', ł: 'l', đ: 'd', ð: 'd', þ: 'th', ħ: 'h', ı: 'i', ŧ: 't', ŋ: 'n', ſ: 's' };

function fold(character) {
  const once = (text) => text.normalize('NFKD').toLowerCase().normalize('NFKD').replace(/\p{Mn}/gu, '');
  return [...once(character)].map((part) => plain[part] ?? part).join('');
}

const lines = [];
for (let code = 0x80; code <= 0x10ffff; code++) {
  // Surrogates are no characters; Hangul syllables are taken apart by their formula.
  if ((code >= 0xd800 && code <= 0xdfff) || (code >= 0xac00 && code <= 0xd7a3)) continue;
  const character = String.fromCodePoint(code);
  const folded = fold(character);
  if (folded !== character) lines.push(character + folded);
}
process.stdout.write(lines.join('\n'));
