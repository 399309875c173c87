// The reference for order keys on Node: how long keys become, in signs, when things are put one after the other as the bench says. Prints JSON.
import { generateKeyBetween } from 'fractional-indexing';

/** Puts things and says how long the longest key became; null where the reference gives up. */
function longest(count, next) {
  let [low, high, most] = [null, null, 0];
  low = generateKeyBetween(null, null);
  high = generateKeyBetween(low, null);
  for (let i = 0; i < count; i++) {
    let key;
    [key, low, high] = next(i, low, high);
    most = Math.max(most, key.length);
  }
  return most;
}

const end = longest(20_000, (_, low, high) => ((key) => [key, low, key])(generateKeyBetween(high, null)));
const beginning = longest(20_000, (_, low, high) => ((key) => [key, key, high])(generateKeyBetween(null, low)));
const after = longest(20_000, (_, low, high) => ((key) => [key, low, key])(generateKeyBetween(low, high)));
const before = longest(20_000, (_, low, high) => ((key) => [key, key, high])(generateKeyBetween(low, high)));
const inward = longest(2_000, (i, low, high) => ((key) => (i % 2 ? [key, low, key] : [key, key, high]))(generateKeyBetween(low, high)));

console.log(JSON.stringify({ end, beginning, after, before, inward }));
