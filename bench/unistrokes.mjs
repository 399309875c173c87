// The strokes by which the authors of the unistroke literature publish their gestures: each gesture's name and points, as JSON.
import { readFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';

const source = await readFile(fileURLToPath(import.meta.resolve('one-dollar/one-dollar.js')), 'utf8');
const gestures = [...source.matchAll(/new Unistroke\("([^"]+)", new Array\((.*?)\)\);/gs)].map(([, name, points]) => ({
  name,
  points: [...points.matchAll(/new Point\((\d+),(\d+)\)/g)].map(([, x, y]) => [Number(x), Number(y)]),
}));
process.stdout.write(JSON.stringify(gestures));
