import { plural, t } from '@lingui/core/macro';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { useLibrary } from '../data/useLibrary';
import { openPath, root } from '../model/items';
import { clockWords, dayWords } from '../model/time';
import { Avatar } from '../ui/Avatar';
import { Button } from '../ui/Button';
import { deeds } from './chart';
import { type Happening, type HappenedIn, happenings, type ShownDeed, useHappened } from './happened';

/** So many lines are shown at first, and more at a time. */
const few = 12;
const more = 60;

/** Who did what, by day, the latest first; each line leads there. */
export function WhatHappened({ within }: { within: HappenedIn }) {
  const { data, isError, isPending, hasNextPage, fetchNextPage, isFetchingNextPage } = useHappened(within);
  const isWhole = !within.notebook;
  const [shown, setShown] = useState(few);
  const all = useMemo(() => happenings(data?.pages.flat() ?? [], isWhole), [data, isWhole]);
  const days = firstOf(all, shown);
  const isMore = all.reduce((sum, { lines }) => sum + lines.length, 0) > shown;
  if (isPending) return <p className="py-3 text-quiet">{t`Looking what happened…`}</p>;
  if (isError && !data)
    return (
      <p
        className="py-3 text-quiet"
        data-testid="happened-away"
      >{t`What happened is told when there is a connection.`}</p>
    );
  if (days.length === 0) return <p className="py-3 text-quiet">{t`Nothing has happened here yet.`}</p>;
  return (
    <div data-testid="happened">
      {days.map(({ day, lines }) => (
        <section key={day} aria-label={dayWords(new Date(lines[0]!.last.at))}>
          <h3 className="pt-4 pb-1 font-sans text-[13px] font-semibold text-quiet">
            {dayWords(new Date(lines[0]!.last.at))}
          </h3>
          <ul>
            {lines.map((line) => (
              <Line key={line.key} line={line} within={within} />
            ))}
          </ul>
        </section>
      ))}
      {(isMore || hasNextPage) && (
        <Button
          className="mt-3"
          disabled={isFetchingNextPage}
          data-testid="happened-earlier"
          onClick={() => {
            setShown(shown + more);
            if (!isMore) void fetchNextPage();
          }}
        >{t`What happened before`}</Button>
      )}
    </div>
  );
}

function Line({ line, within }: { line: Happening; within: HappenedIn }) {
  const library = useLibrary(within.space);
  const { last } = line;
  const title = within.page
    ? ''
    : within.notebook || last.kind === 1
      ? titleOf(last)
      : (library?.find(last.notebook)?.name ?? '');
  return (
    <li className="border-b border-base-300" data-testid="happened-line">
      <Link to={whereTo(within.space, last)} className="flex items-start gap-3 py-2.5 hover:bg-base-200">
        <Avatar name={line.name} colour={line.colour} size={26} />
        <span className="min-w-0 grow">
          <span className="flex gap-2">
            <span className="min-w-0 grow truncate">
              {line.name}
              {title && ` · ${title}`}
            </span>
            <span className="shrink-0 text-[13px] text-quiet tabular-nums">{clockWords(new Date(last.at))}</span>
          </span>
          <span className="block text-[13px] text-quiet">{doneWords(line, within)}</span>
        </span>
      </Link>
    </li>
  );
}

/** The first lines, under their days. */
function firstOf(days: { day: string; lines: Happening[] }[], most: number): { day: string; lines: Happening[] }[] {
  let left = most;
  const first = [];
  for (const { day, lines } of days) {
    if (left <= 0) break;
    first.push({ day, lines: lines.slice(0, left) });
    left -= lines.length;
  }
  return first;
}

function titleOf({ title, number, kind }: ShownDeed): string {
  if (title) return kind === 1 ? `“${title}”` : title;
  return number > 0 ? t`page ${number}` : t`a page without a title`;
}

/** Where a line leads: to the page as it was then, or to what was put somewhere. */
function whereTo(space: string, { kind, notebook, target, isInBin, at, number }: ShownDeed): string {
  if (isInBin) return `/library/${space}/bin`;
  if (kind === 3) return `${openPath(space, notebook, target)}?past=${at}`;
  if (kind === 2 && number > 0) return openPath(space, notebook, target);
  return notebook === root ? `/library/${space}/${target}` : openPath(space, notebook, '');
}

/** What was done, in one sentence without its beginning. */
function doneWords({ written, placed, pages }: Happening, within: HappenedIn): string {
  const words: string[] = [];
  const say = (sums: Map<number, number>, deed: number, word: (count: number) => string) => {
    const count = sums.get(deed) ?? 0;
    if (count > 0) words.push(word(count));
  };
  say(written, deeds.wrote, (count) => plural(count, { one: 'wrote a line', other: 'wrote # lines' }));
  say(written, deeds.typed, (count) => plural(count, { one: 'typed a letter', other: 'typed # letters' }));
  say(written, deeds.added, (count) => plural(count, { one: 'added one thing', other: 'added # things' }));
  say(written, deeds.moved, (count) =>
    plural(count, { one: 'moved or changed one thing', other: 'moved or changed # things' }),
  );
  say(written, deeds.removed, (count) => plural(count, { one: 'removed one thing', other: 'removed # things' }));
  say(written, deeds.said, (count) => plural(count, { one: 'answered a mark', other: 'gave # answers' }));
  if (!within.notebook && pages.size > 1)
    words.push(plural(pages.size, { one: 'all of it on one page', other: 'all of it on # pages' }));
  say(placed, deeds.added, (count) =>
    within.page ? t`made it` : plural(count, { one: 'made something here', other: 'made # things here' }),
  );
  say(placed, deeds.moved, (count) =>
    within.page
      ? t`moved or renamed it`
      : plural(count, { one: 'moved or renamed something here', other: 'moved or renamed # things here' }),
  );
  say(placed, deeds.removed, (count) =>
    within.page
      ? t`put it into the bin`
      : plural(count, { one: 'put something into the bin', other: 'put # things into the bin' }),
  );
  return words.join(', ');
}
