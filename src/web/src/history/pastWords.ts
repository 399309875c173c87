import { plural, t } from '@lingui/core/macro';
import type { Writer } from '../data/usePeople';
import { clockWords, dateWords } from '../model/time';
import { deeds } from './chart';

/** What moment of a page it is. */
export function momentWords(time: number, isNow: boolean): string {
  if (isNow) return t`As it is now`;
  if (time === 0) return t`Before anything was written`;
  const at = new Date(time);
  const [date, clock] = [dateWords(at), clockWords(at)];
  return t`As it was on ${date} at ${clock}`;
}

/** Who did what last before a moment. */
export function lastWords([person, deed]: string[], people: Writer[]): string {
  if (!person) return t`Draw the needle along the bar, or use the arrow keys.`;
  const name = people.find((one) => one.id === person)?.name ?? t`Somebody`;
  switch (Number(deed)) {
    case deeds.wrote:
      return t`${name} was writing`;
    case deeds.added:
      return t`${name} put something there`;
    case deeds.moved:
      return t`${name} moved or changed something`;
    case deeds.removed:
      return t`${name} removed something`;
    default:
      return t`${name} answered a mark`;
  }
}

/** How many things came back. */
export const backWords = (things: number): string =>
  plural(things, { one: 'One thing is back.', other: '# things are back.' });

/** How many stayed as they are; empty for none. */
export const leftWords = (left: number): string =>
  left === 0
    ? ''
    : plural(left, {
        one: 'One thing that others changed since was left as it is.',
        other: '# things that others changed since were left as they are.',
      });
