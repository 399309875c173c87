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
