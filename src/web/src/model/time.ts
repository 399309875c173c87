import { plural, t } from '@lingui/core/macro';
import { dateLocale } from '../words/language';
import { inZone } from './zone';

const dayMilliseconds = 86_400_000;

/** When something was written, as people say it. */
export function whenWords(when: string | number, moment = new Date()): string {
  const minutes = Math.floor((moment.getTime() - new Date(when).getTime()) / 60_000);
  if (minutes < 1) return t`a moment ago`;
  if (minutes < 60) return plural(minutes, { one: 'a minute ago', other: '# minutes ago' });
  const [at, now] = [inZone(new Date(when)), inZone(moment)];
  const days = Math.round((startOfDay(now) - startOfDay(at)) / dayMilliseconds);
  if (days === 0) return t`today at ${clockOf(at)}`;
  if (days === 1) return t`yesterday`;
  if (days < 7) return at.toLocaleDateString(dateLocale(), { weekday: 'long' });
  const year = at.getFullYear() === now.getFullYear() ? undefined : ('numeric' as const);
  return at.toLocaleDateString(dateLocale(), { day: 'numeric', month: 'long', year });
}

function startOfDay(date: Date): number {
  return new Date(date.getFullYear(), date.getMonth(), date.getDate()).getTime();
}

/** The heading under which something stands in a list grouped by date. */
export function whenGroup(at: number, moment = new Date()): string {
  const [date, now] = [inZone(at), inZone(moment)];
  const days = Math.round((startOfDay(now) - startOfDay(date)) / dayMilliseconds);
  if (days <= 0) return t`Today`;
  if (days === 1) return t`Yesterday`;
  if (days < 7) return t`Past 7 days`;
  if (days < 30) return t`Past 30 days`;
  return date.getFullYear() === now.getFullYear()
    ? date.toLocaleDateString(dateLocale(), { month: 'long' })
    : String(date.getFullYear());
}

/** A day with its weekday, as the Desk and today's page say it. */
export function dayWords(at = new Date()): string {
  return inZone(at).toLocaleDateString(dateLocale(), {
    weekday: 'long',
    day: 'numeric',
    month: 'long',
    year: 'numeric',
  });
}

/** The time of the day, in hours and minutes. */
export function clockWords(at: Date): string {
  return clockOf(inZone(at));
}

const clockOf = (date: Date): string => date.toLocaleTimeString(dateLocale(), { hour: '2-digit', minute: '2-digit' });

/** A day as it is written in a list: 3 March 2027. */
export function dateWords(at: Date): string {
  return inZone(at).toLocaleDateString(dateLocale(), { day: 'numeric', month: 'long', year: 'numeric' });
}

/** The same with the month short and no year. */
export function shortDateWords(at: number): string {
  return inZone(at).toLocaleDateString(dateLocale(), { day: 'numeric', month: 'short' });
}

/** A day of the calendar, given as 2026-11-23, whatever the zone. */
export function calendarDayWords(day: string): string {
  return new Date(`${day}T12:00:00`).toLocaleDateString(dateLocale(), {
    day: 'numeric',
    month: 'long',
    year: 'numeric',
  });
}

/** The day as 2026-11-23. */
export const dayKey = (at: Date | number = Date.now()): string => keyOf(inZone(at));

/** The day that a date's own fields say, as 2026-11-23. */
export const keyOf = (date: Date): string =>
  `${date.getFullYear()}-${String(date.getMonth() + 1).padStart(2, '0')}-${String(date.getDate()).padStart(2, '0')}`;

/** The week of the year by ISO 8601: the one with the year's first Thursday is week 1. */
export function isoWeek(date = inZone(Date.now())): number {
  const thursday = new Date(date.getFullYear(), date.getMonth(), date.getDate() + 3 - ((date.getDay() + 6) % 7));
  return (
    1 +
    Math.round((startOfDay(thursday) - startOfDay(new Date(thursday.getFullYear(), 0, 1))) / dayMilliseconds / 7 - 0.5)
  );
}
