import { keyOf } from '../model/time';
import { inZone } from '../model/zone';
import { spoken } from '../words/language';
import { t } from '@lingui/core/macro';
export type Kind = 'year' | 'term' | 'month' | 'week' | 'day' | 'notes';

/** The kinds in their order in the notebook, each with the papers made for it. */
export const kinds: { kind: Kind; words: string; papers: { paper: string; words: string }[] }[] = [
  { kind: 'year', words: t`Years`, papers: [{ paper: 'a4-year-710', words: 'A4' }] },
  {
    kind: 'term',
    words: t`The whole term`,
    papers: [
      { paper: 'a4-term-710', words: 'A4' },
      { paper: 'a4.across-term-710', words: t`A4 across` },
    ],
  },
  {
    kind: 'month',
    words: t`Months`,
    papers: [
      { paper: 'a4.across-month-710', words: t`A4 across` },
      { paper: 'a4-month-710', words: t`A4 upright` },
    ],
  },
  {
    kind: 'week',
    words: t`Weeks`,
    papers: [
      { paper: 'a4.across-week-710', words: t`by hours` },
      { paper: 'a4-weekboxes-710', words: t`in boxes` },
    ],
  },
  {
    kind: 'day',
    words: t`Days`,
    papers: [
      { paper: 'a4-day-710', words: t`hours and notes` },
      { paper: 'a4-ruled-710', words: t`ruled` },
      { paper: 'a4-squared-500', words: t`squared` },
    ],
  },
  { kind: 'notes', words: t`Notes`, papers: [] },
];

/** What one chooses for a planner. */
export interface Chosen {
  name: string;
  first: string;
  last: string;
  week: 'monday' | 'sunday';
  language: string;
  kinds: Kind[];
  papers: Record<Kind, string>;
}

/** From the beginning of this month, for half a year. */
export function usual(week: Chosen['week']): Chosen {
  const now = inZone(Date.now());
  return {
    name: t`Planner`,
    first: keyOf(new Date(now.getFullYear(), now.getMonth(), 1)),
    last: keyOf(new Date(now.getFullYear(), now.getMonth() + 6, 0)),
    week,
    language: spoken(),
    kinds: ['year', 'month', 'week', 'day', 'notes'],
    papers: {
      year: 'a4-year-710',
      term: 'a4-term-710',
      month: 'a4.across-month-710',
      week: 'a4.across-week-710',
      day: 'a4-day-710',
      notes: 'a4-ruled-710',
    },
  };
}
