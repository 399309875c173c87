// Writes sequences.txt: what loro-crdt, whose texts go by Fugue as ours do, makes of three people's writing. node make-sequences.mjs FOLDER-OF-NODE-
// MODULES > sequences.txt
// Two lines a case. First its steps, parted by tabs: "0+12:abc" types at a position, "1-3:2" removes so many from one, "2<0" hears of all that another
// knows. Then the text that all have in the end.
import { createRequire } from 'node:module';
import { join } from 'node:path';

const { LoroDoc } = createRequire(join(process.argv[2], 'x.js'))('loro-crdt');
let seed = 1;
const below = (n) => {
  seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0;
  return Math.floor((seed / 2 ** 32) * n);
};

for (let i = 0; i < 400; i++) {
  const people = [1, 2, 3].map((number) => {
    const document = new LoroDoc();
    document.setPeerId(String(number));
    return document;
  });
  const steps = [];
  for (let left = 3 + below(40); left > 0; left--) {
    const who = below(3);
    const text = people[who].getText('text');
    const what = below(10);
    if (what < 5) {
      const at = below(text.length + 1);
      const letters = Array.from({ length: 1 + below(3) }, () => String.fromCharCode(97 + below(26))).join('');
      text.insert(at, letters);
      steps.push(`${who}+${at}:${letters}`);
    } else if (what < 7 && text.length > 0) {
      const at = below(text.length);
      const count = Math.min(text.length - at, 1 + below(3));
      text.delete(at, count);
      steps.push(`${who}-${at}:${count}`);
    } else {
      const from = (who + 1 + below(2)) % 3;
      people[who].import(people[from].export({ mode: 'update' }));
      steps.push(`${who}<${from}`);
    }
    people[who].commit();
  }
  for (const one of people) for (const other of people) if (one !== other) one.import(other.export({ mode: 'update' }));
  console.log(steps.join('\t'));
  console.log(people[0].getText('text').toString());
}
