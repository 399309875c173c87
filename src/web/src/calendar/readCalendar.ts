import { zoneName } from '../model/zone';
import { plural, t } from '@lingui/core/macro';
import { type SentenceParts, sentenceIn } from '../words/sentences';
import { sendJson } from '../server/api';
import type { CalendarSource } from './CalendarField';

export interface ReadCalendar {
  entries: { id: string; value: string }[];
  passed: number;
  /** The first of those that were passed over, and why. */
  named: ({ title: string; why: string } & SentenceParts)[];
  unknownZones: string[];
}

const mostBytes = 8 * 1024 * 1024;

/** Has the server read an iCalendar file, or fetch one, for a span of days on the clock by which times are told. */
export async function readCalendar(
  source: CalendarSource,
  first: string,
  last: string,
  signal?: AbortSignal,
): Promise<ReadCalendar> {
  if (source.file && source.file.size > mostBytes)
    throw new Error(t`The calendar file is larger than 8 MB. Nothing was changed.`);
  const zone = zoneName();
  return sendJson<ReadCalendar>(
    'POST',
    '/api/calendar-entries',
    { ...(source.file ? { text: await source.file.text() } : { address: source.address.trim() }), first, last, zone },
    signal,
  );
}

/** So many entries are named in what is said. */
const mostNamed = 3;

/** What is to be said of a calendar that could not be read in full. */
export function aboutCalendar({ passed, named, unknownZones }: ReadCalendar): string {
  const more = passed - Math.min(named.length, mostNamed);
  return [
    passed > 0 && plural(passed, { one: '# entry was passed over.', other: '# entries were passed over.' }),
    ...named.slice(0, mostNamed).map((one) => `“${one.title}”: ${sentenceIn(one.why, one)}`),
    more > 0 && t`And ${more} more.`,
    unknownZones.length > 0 && t`Times in ${unknownZones.join(', ')} were taken as local ones.`,
  ]
    .filter(Boolean)
    .map((sentence) => ` ${sentence}`)
    .join('');
}
