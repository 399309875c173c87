const dayMilliseconds = 86_400_000;

/** When something was written, as people say it. */
export function whenWords(iso: string, now = new Date()): string {
  const at = new Date(iso);
  const minutes = Math.floor((now.getTime() - at.getTime()) / 60_000);
  if (minutes < 1) return 'a moment ago';
  if (minutes < 60) return minutes === 1 ? 'a minute ago' : `${minutes} minutes ago`;
  const days = Math.round((startOfDay(now) - startOfDay(at)) / dayMilliseconds);
  if (days === 0) return `today at ${at.toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })}`;
  if (days === 1) return 'yesterday';
  if (days < 7) return at.toLocaleDateString('en-GB', { weekday: 'long' });
  const year = at.getFullYear() === now.getFullYear() ? undefined : ('numeric' as const);
  return at.toLocaleDateString('en-GB', { day: 'numeric', month: 'long', year });
}

function startOfDay(date: Date): number {
  return new Date(date.getFullYear(), date.getMonth(), date.getDate()).getTime();
}

/** The heading under which something stands in a list grouped by date. */
export function whenGroup(at: number, now = new Date()): string {
  const date = new Date(at);
  const days = Math.round((startOfDay(now) - startOfDay(date)) / dayMilliseconds);
  if (days <= 0) return 'Today';
  if (days === 1) return 'Yesterday';
  if (days < 7) return 'Past 7 days';
  if (days < 30) return 'Past 30 days';
  return date.getFullYear() === now.getFullYear()
    ? date.toLocaleDateString('en-GB', { month: 'long' })
    : String(date.getFullYear());
}

/** A day with its weekday, as the Desk and today's page say it. */
export function dayWords(date = new Date()): string {
  return date.toLocaleDateString('en-GB', { weekday: 'long', day: 'numeric', month: 'long', year: 'numeric' });
}

/** The day as 2026-11-23, by the device's clock. */
export function dayKey(date = new Date()): string {
  return `${date.getFullYear()}-${String(date.getMonth() + 1).padStart(2, '0')}-${String(date.getDate()).padStart(2, '0')}`;
}

/** The week of the year by ISO 8601: the one with the year's first Thursday is week 1. */
export function isoWeek(date = new Date()): number {
  const thursday = new Date(date.getFullYear(), date.getMonth(), date.getDate() + 3 - ((date.getDay() + 6) % 7));
  return (
    1 +
    Math.round((startOfDay(thursday) - startOfDay(new Date(thursday.getFullYear(), 0, 1))) / dayMilliseconds / 7 - 0.5)
  );
}
