import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import { test } from 'node:test';
import { transformWithOxc } from 'vite';

const kept = new Map();
globalThis.localStorage = {
  getItem: (key) => kept.get(key) ?? null,
  setItem: (key, value) => void kept.set(key, value),
  removeItem: (key) => void kept.delete(key),
};
const source = readFileSync(new URL('../src/model/zone.ts', import.meta.url), 'utf8');
const { code } = await transformWithOxc(source, 'zone.ts');
const { inZone, minutesAhead, setTimeZone, timeZone } = await import(
  `data:text/javascript,${encodeURIComponent(code)}`
);

/** Every three hours of two years: changes of clocks in both halves of the world are among them. */
const moments = Array.from({ length: 2 * 365 * 8 }, (_, i) => Date.UTC(2019, 0, 1, 0, 17) + i * 3 * 3_600_000);
const zones = [
  'Europe/Berlin',
  'America/St_Johns',
  'Asia/Kathmandu',
  'Pacific/Kiritimati',
  'Australia/Lord_Howe',
  'UTC',
];
const fieldsOf = (date) => [
  date.getFullYear(),
  date.getMonth(),
  date.getDate(),
  date.getDay(),
  date.getHours(),
  date.getMinutes(),
];

// Beside what JavaScript itself says in a process that lies in the zone (ECMA-262, local time).
for (const zone of zones)
  test(`times are told in ${zone} as they are there`, () => {
    for (const home of ['UTC', 'America/New_York']) {
      process.env.TZ = zone;
      const there = moments.map((at) => [0 - new Date(at).getTimezoneOffset(), ...fieldsOf(new Date(at))]);
      process.env.TZ = home;
      setTimeZone(zone);
      const told = moments.map((at) => [minutesAhead(at), ...fieldsOf(inZone(at))]);
      // A time that the clocks here leave out cannot be written with the fields of a date of here.
      const canBeWritten = ([, year, month, day, , hour, minute]) =>
        new Date(year, month, day, hour, minute).getHours() === hour;
      const written = there.map(canBeWritten);
      assert.ok(written.filter(Boolean).length > moments.length - 5);
      assert.deepEqual(
        told.filter((_, i) => written[i]),
        there.filter((_, i) => written[i]),
      );
      setTimeZone('');
    }
  });

test('a zone that nobody knows is the one of here', () => {
  process.env.TZ = 'Asia/Tokyo';
  setTimeZone('Middle/Of_Nowhere');
  assert.equal(minutesAhead(moments[0]), 540);
  assert.deepEqual(fieldsOf(inZone(moments[0])), fieldsOf(new Date(moments[0])));
  setTimeZone('');
  assert.equal(timeZone(), '');
  assert.equal(kept.size, 0);
});
