import { dayKey } from '../model/time';
/** A bar of time, as Core hands it out. */
export interface Chart {
  /** How many moments there are. */
  length: number;
  people: string[];
  /** From, to (UTC milliseconds), and where it begins and ends on the bar, 0 to 1. */
  sittings: [number, number, number, number][];
  /** Column, person by the place in the list, deed, things. */
  strokes: [number, number, number, number][];
}

/** So many operations are gone over before the screen has its turn. */
export const overAtOnce = 4_000;
/** The columns of a chart. */
export const columns = 360;
/** What came since and what is gone since, as Core paints them on a page. */
export const sideColours = { came: '#1f5f8b', gone: '#c4623f' } as const;
/** What people did, by Core's numbers. */
export const deeds = { wrote: 1, added: 2, moved: 3, removed: 4, said: 5, typed: 6 } as const;
/** So many people have a line of their own on the chart; the others share the last one. */
const mostLanes = 6;
export const laneHeight = 15;

/** How high a chart is drawn, pixels: a hand still hits it where there is one line, and many are no wall. */
export const heightOf = (lanes: number): number => Math.max(52, Math.min(lanes, mostLanes) * 17);

/** The lines of a chart from above: whose each is, and what is drawn on it, upwards from the middle what came and downwards what went. */
export function lanesOf(chart: Chart): { people: string[]; path: string }[] {
  const lanes: { people: string[]; path: string }[] = [];
  chart.people.forEach((person, i) => {
    if (i < mostLanes) lanes.push({ people: [person], path: '' });
    else lanes.at(-1)!.people.push(person);
  });
  for (const [column, person, deed, things] of chart.strokes) {
    const at = Math.min(person, mostLanes - 1);
    const middle = (at + 0.5) * laneHeight;
    // As tall as it was much: a single stroke is seen, and a hundred are no wall.
    const tall = Math.min(laneHeight / 2 - 0.5, 4 + Math.log2(things));
    lanes[at]!.path +=
      `M${column + 0.5} ${middle}V${(deed === deeds.removed ? middle + tall : middle - tall).toFixed(2)}`;
  }
  return lanes;
}

/** The days of a chart that have room for their names: each where its first sitting begins. */
export function daysOf(chart: Chart, leastApart: number): { at: number; left: number }[] {
  const days: { at: number; left: number }[] = [];
  let before = '';
  for (const [from, , left] of chart.sittings) {
    const day = dayKey(from);
    if (day === before) continue;
    before = day;
    if (days.length === 0 || left - days.at(-1)!.left >= leastApart) days.push({ at: from, left });
  }
  return days;
}
