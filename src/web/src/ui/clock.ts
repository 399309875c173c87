import { minutesAhead, zoneName } from '../model/zone';

/** From when on the clock of this place is how far ahead of UTC. */
export interface ClockChange {
  /** UTC ms. */
  since: number;
  minutes: number;
}

const day = 86_400_000;
const [first, last] = [Date.UTC(2000, 0, 1), Date.UTC(2045, 0, 1)];
let known: { at: string; changes: ClockChange[] } | undefined;

/** All changes of the clock where times are told, by the browser's own knowledge of time zones; looked for once for each zone. */
export function clockChanges(): ClockChange[] {
  const at = zoneName();
  if (known?.at !== at) known = { at, changes: lookFor() };
  return known.changes;
}

function lookFor(): ClockChange[] {
  const changes = [{ since: first, minutes: minutesAt(first) }];
  for (let at = first + day; at < last; at += day) {
    const { minutes } = changes.at(-1)!;
    if (minutesAt(at) !== minutes) changes.push({ since: firstOther(at - day, at, minutes), minutes: minutesAt(at) });
  }
  return changes;
}

/** The moment of a change between two, to the minute. */
function firstOther(before: number, after: number, minutes: number): number {
  while (after - before > 60_000) {
    const middle = before + Math.floor((after - before) / 120_000) * 60_000;
    if (middle === before) break;
    if (minutesAt(middle) === minutes) before = middle;
    else after = middle;
  }
  return after;
}

const minutesAt = minutesAhead;
