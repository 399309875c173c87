// The references on Node: reads strokes (one array of [x, y, pressure, time] samples each) and prints their times as JSON, in milliseconds.
import { readFileSync } from 'node:fs';
import { getStroke } from 'perfect-freehand';
import * as Y from 'yjs';

const strokes = JSON.parse(readFileSync(process.argv[2], 'utf8'));

/** The best of several runs. */
function best(run, times = 5) {
  let least = Infinity;
  for (let i = 0; i < times; i++) {
    const start = performance.now();
    run();
    least = Math.min(least, performance.now() - start);
  }
  return least;
}

const outline = best(() => {
  for (const stroke of strokes) getStroke(stroke.map(([x, y, pressure]) => [x, y, pressure / 1023]), { size: 55, simulatePressure: false });
});

const updates = [];
const source = new Y.Doc();
source.on('update', (update) => updates.push(update));
for (const stroke of strokes) source.getArray('strokes').push([{ pen: 1, width: 55, colour: 0x22302eff, samples: stroke }]);
const apply = best(() => {
  const target = new Y.Doc();
  for (const update of updates) Y.applyUpdate(target, update);
});

console.log(JSON.stringify({ outline, apply }));
