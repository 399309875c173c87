const key = 'quill.zone';

/** How many minutes a zone is ahead of UTC at a moment. */
type Ahead = (at: number) => number;

let chosen = localStorage.getItem(key) ?? '';
let ahead = aheadIn(chosen);

/** The time zone in which times are told, by its IANA name; empty for the device's own. */
export const timeZone = (): string => chosen;

/** Its name also where it is the device's. */
export const zoneName = (): string => chosen || Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC';

/** Tells times in a zone from now on; one that the browser does not know is the device's. */
export function setTimeZone(zone: string): void {
  if (zone === chosen) return;
  [chosen, ahead] = [zone, aheadIn(zone)];
  if (zone) localStorage.setItem(key, zone);
  else localStorage.removeItem(key);
}

/** How many minutes the chosen zone is ahead of UTC at a moment, UTC ms. */
export const minutesAhead = (at: number): number => (ahead ?? here)(at);

/** The same at this moment. */
export const minutesAheadNow = (): number => minutesAhead(Date.now());

/** A date whose local fields are those of the chosen zone at this moment: for writing it out, and for nothing else. */
export function inZone(at: Date | number): Date {
  const time = typeof at === 'number' ? at : at.getTime();
  if (!ahead) return new Date(time);
  const shown = new Date(time + ahead(time) * 60_000);
  return new Date(
    shown.getUTCFullYear(),
    shown.getUTCMonth(),
    shown.getUTCDate(),
    shown.getUTCHours(),
    shown.getUTCMinutes(),
    shown.getUTCSeconds(),
  );
}

const here: Ahead = (at) => 0 - new Date(at).getTimezoneOffset();

function aheadIn(zone: string): Ahead | undefined {
  if (!zone) return undefined;
  let format: Intl.DateTimeFormat;
  try {
    format = new Intl.DateTimeFormat('en-GB', {
      timeZone: zone,
      hourCycle: 'h23',
      year: 'numeric',
      month: 'numeric',
      day: 'numeric',
      hour: 'numeric',
      minute: 'numeric',
      second: 'numeric',
    });
  } catch {
    return undefined;
  }
  return (at) => {
    const parts = Object.fromEntries(format.formatToParts(at).map(({ type, value }) => [type, Number(value)]));
    const { year, month, day, hour, minute, second } = parts as Record<string, number>;
    const shown = Date.UTC(year!, month! - 1, day, hour, minute, second);
    return Math.round((shown - Math.floor(at / 1000) * 1000) / 60_000);
  };
}
