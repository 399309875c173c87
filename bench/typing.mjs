// The reference for typed text on Node: yjs, on the same text and with the same keys as TypingBench.cs. Prints milliseconds as JSON.
import * as Y from 'yjs';

const [pieces, keys] = [10_000, 5_000];
let seed = 5480;
const below = (n) => {
  seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0;
  return Math.floor((seed / 2 ** 32) * n);
};

const updates = [];
const source = new Y.Doc();
source.on('update', (update) => updates.push(update));
const text = source.getText('text');
for (let i = 0; i < pieces; i++) text.insert(below(text.length + 1), 'pendulum. ');

let open = Infinity;
for (let run = 0; run < 9; run++) {
  const start = performance.now();
  const target = new Y.Doc();
  for (const update of updates) Y.applyUpdate(target, update);
  target.getText('text').toString();
  open = Math.min(open, performance.now() - start);
}

// Somebody types here and there, twenty keys at a place; each key is taken in and the place found by its position.
const times = [];
let at = 0;
for (let i = 0; i < keys; i++) {
  if (i % 20 === 0) at = below(text.length);
  const start = performance.now();
  text.insert(at++, 'k');
  times.push(performance.now() - start);
}
times.sort((a, b) => a - b);
console.log(JSON.stringify({ open, key: times[Math.floor(times.length * 0.95)] }));
