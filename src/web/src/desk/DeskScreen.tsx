import { FirstSteps } from './FirstSteps';
import { Taught } from './Taught';
import { Told, type ToldAnswer } from './Told';
import { usePersonal } from '../data/usePersonal';
import { Button } from '../ui/Button';
import { plural, t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useQuery } from '@tanstack/react-query';
import { CalendarBlankIcon } from '@phosphor-icons/react';
import { type ReactNode, useState } from 'react';
import { Link } from 'react-router';
import { FollowUpLine } from '../followups/FollowUpLine';
import { useFollowUps, useTick } from '../followups/useFollowUps';
import { AtTheDoor } from '../group/AtTheDoor';
import { JotButton } from '../jot/JotButton';
import { useToday } from '../jot/useJot';
import { openPath, type ShownPage, stripPath, thumbnailPath } from '../model/items';
import { useLibraries } from '../data/useLibrary';
import { useStrip, useSummaries } from '../data/useShelf';
import { PagePicture } from '../pictures/PagePicture';
import { useSession } from '../server/session';
import { useMarkKinds } from '../spots/markKinds';
import { withoutNews } from '../data/useNews';
import { useWorkspace } from '../data/useWorkspace';
import { Avatar } from '../ui/Avatar';
import { dayWords, isoWeek, whenWords } from '../model/time';

interface DeskAnswer {
  told?: ToldAnswer[];
  leftOff: { space: string; notebookName: string; page: ShownPage }[];
  news: {
    space: string;
    person: string;
    name: string;
    colour: string;
    notebook: string;
    notebookName: string;
    pages: number;
    lastPage: string;
    at: number;
  }[];
}

/** The first screen: where one left off, what is open and due, what the group did, which jots wait. */
export function DeskScreen() {
  const { person } = useSession();
  const workspace = useWorkspace();
  const today = useToday();
  const personal = usePersonal();
  const [since] = useState(() => lastVisit(person.id));
  const { data } = useQuery({
    queryKey: ['desk', since],
    queryFn: () => workspace.list<DeskAnswer>('/api/desk', since ? `?since=${since}` : ''),
    refetchOnMount: 'always',
    refetchInterval: withoutNews,
  });
  const leftOff = data?.leftOff ?? [];
  return (
    <div className="h-full overflow-y-auto px-10 pb-12 pt-6 max-sm:px-4">
      <header className="flex flex-wrap items-end gap-2">
        <div className="grow">
          <p className="text-quiet">{t`${dayWords()}, week ${isoWeek()}`}</p>
          <h1 className="text-[31px] leading-tight" data-testid="desk-heading">{t`Where you left off`}</h1>
        </div>
        <Button className="px-4" data-testid="today" disabled={!today} onClick={() => void today?.()}>
          <CalendarBlankIcon size={20} weight="light" /> {t`Today's page`}
        </Button>
        <JotButton />
      </header>
      <Taught />
      <AtTheDoor />
      {leftOff.length > 0 ? (
        <ol className="mt-5 flex flex-wrap gap-x-[52px] gap-y-6 border-b border-base-300 pb-6 max-sm:grid max-sm:grid-cols-2 max-sm:gap-x-4">
          {leftOff.slice(0, 5).map(({ space, notebookName, page }) => (
            <li key={page.id} className="w-[150px] max-sm:w-auto" data-testid="left-off" data-name={notebookName}>
              <Link to={openPath(space, page.notebook, page.id)} className="group block">
                <PagePicture
                  address={stripPath(space, page)}
                  alt={t`Page ${page.number} of ${notebookName}`}
                  width={150}
                  height={212}
                  className="group-hover:border-primary max-sm:aspect-[150/212] max-sm:h-auto! max-sm:w-full!"
                />
                <span className="mt-2 line-clamp-2 block font-title text-[16px] leading-tight">{notebookName}</span>
                <span className="text-[13px] text-quiet">
                  {t`page ${page.number}`}
                  {page.writtenAt && `, ${whenWords(page.writtenAt)}`}
                </span>
              </Link>
            </li>
          ))}
        </ol>
      ) : (
        data &&
        personal &&
        (personal.habits.stepsPutAway ? (
          <p className="mt-4 border-b border-base-300 pb-8 text-quiet">{t`The pages you write on last will lie here. “Jot” gives you an empty one at once.`}</p>
        ) : (
          <FirstSteps personal={personal} />
        ))
      )}
      <Told told={data?.told ?? []} />
      <div className="mt-7 grid grid-cols-[1.45fr_1fr] gap-x-12 gap-y-7 max-lg:grid-cols-1">
        <div className="grid content-start gap-7">
          <StillOpen />
          <Jots />
        </div>
        <div className="grid content-start gap-7">
          <Part title={t`In the group`}>
            <ul>
              {(data?.news ?? []).map((news) => (
                <li
                  key={`${news.person}${news.notebook}`}
                  className="flex items-start gap-3 border-b border-base-300 py-2.5"
                  data-testid="news"
                >
                  <Avatar name={news.name} colour={news.colour} size={26} />
                  <Link to={openPath(news.space, news.notebook, news.lastPage)} className="grow hover:underline">
                    <WroteOn
                      who={news.name.split(' ')[0]!}
                      pages={news.pages}
                      notebook={<span className="font-semibold">{news.notebookName}</span>}
                    />
                    <span className="block text-[13px] text-quiet">{whenWords(news.at)}</span>
                  </Link>
                </li>
              ))}
              {data && data.news.length === 0 && (
                <li className="py-3 text-quiet">{t`Nobody has written anything new since you were here last.`}</li>
              )}
            </ul>
          </Part>
          <Part title={t`Due again`}>
            <p className="py-3 text-quiet">{t`No questions are due. Those you write for yourself will be asked again here.`}</p>
          </Part>
        </div>
      </div>
    </div>
  );
}

const shownOpen = 4;

/** The open marks: late and due ones first, then the oldest. */
function StillOpen() {
  const { person } = useSession();
  const { marks, refetch } = useFollowUps(false);
  const kinds = useMarkKinds();
  const tick = useTick();
  const [weekAgo] = useState(() => Date.now() - 7 * 86_400_000);
  const old = marks.filter((mark) => mark.createdAt < weekAgo).length;
  const first = [...marks]
    .sort(
      (a, b) =>
        (a.due || '9').localeCompare(b.due || '9') ||
        Number(b.person === person.id) - Number(a.person === person.id) ||
        a.createdAt - b.createdAt,
    )
    .slice(0, shownOpen);
  return (
    <Part
      title={t`Still open`}
      about={
        marks.length > 0 && (
          <Link to="/follow-ups" className="font-sans text-[14px] text-quiet underline" data-testid="desk-follow-ups">
            {plural(marks.length, { one: '# follow-up', other: '# follow-ups' })}
            {old > 0 && `, ${t`${old} older than a week`}`}
          </Link>
        )
      }
    >
      {marks.length === 0 && (
        <p className="py-3 text-quiet">{t`Nothing is marked as open. Marks such as “Ask” and “To do” on your pages will be gathered here.`}</p>
      )}
      {first.map((mark) => (
        <FollowUpLine
          key={mark.id}
          mark={mark}
          kind={kinds.get(mark.mark)}
          width={290}
          height={48}
          about={t`${mark.notebookName}, page ${mark.pageNumber}`}
          onTick={() => void tick(mark, true).then(refetch)}
        />
      ))}
    </Part>
  );
}

function Part({ title, about, children }: { title: string; about?: ReactNode; children: ReactNode }) {
  return (
    <section aria-label={title}>
      <h2 className="flex items-baseline gap-3 border-b border-base-300 pb-1.5 text-[20px]">
        {title}
        {about}
      </h2>
      {children}
    </section>
  );
}

/** Jots that wait to be filed. */
function Jots() {
  const libraries = useLibraries();
  const summaries = useSummaries();
  const jots = [...(libraries?.values() ?? [])].flatMap((library) =>
    library.jots().map((node) => ({ space: library.space, node })),
  );
  return (
    <Part
      title={t`Jots to file`}
      about={
        jots.length > 0 && (
          <Link to="/library/list/jots" className="font-sans text-[14px] text-quiet underline">
            {plural(jots.length, { one: '# waits', other: '# wait' })}
          </Link>
        )
      }
    >
      {jots.length === 0 && <p className="py-3 text-quiet">{t`Nothing waits to be filed.`}</p>}
      <ul className="flex flex-wrap gap-5 pt-3">
        {jots.slice(0, 5).map(({ space, node }) => (
          <li key={node.id} className="w-[104px]">
            <JotFace space={space} notebook={node.id} name={node.name} summary={summaries.get(node.id)} />
          </li>
        ))}
      </ul>
    </Part>
  );
}

function JotFace({
  space,
  notebook,
  name,
  summary,
}: {
  space: string;
  notebook: string;
  name: string;
  summary: Parameters<typeof useStrip>[2];
}) {
  const [page] = useStrip(space, notebook, summary);
  return (
    <Link to={openPath(space, notebook)} className="group block" data-testid="jot-waiting">
      <span className="block h-[76px] w-[104px] overflow-hidden border border-base-300 bg-paper group-hover:border-primary">
        {page && <img src={thumbnailPath(space, page)} alt="" width={104} height={147} />}
      </span>
      <span className="mt-1 block text-[13px] leading-tight">{name}</span>
    </Link>
  );
}

/** When the person was on the Desk before this visit. Coming back within the hour is the same visit. */
function lastVisit(person: string): number | undefined {
  const key = `quill.desk.${person}`;
  const kept = JSON.parse(localStorage.getItem(key) ?? '{}') as { since?: number; here?: number };
  const now = Date.now();
  const isSame = kept.here !== undefined && now - kept.here < 3_600_000;
  const since = isSame ? kept.since : kept.here;
  localStorage.setItem(key, JSON.stringify({ ...(since === undefined ? {} : { since }), here: now }));
  return since;
}

/** Who wrote on how many pages of which notebook. */
function WroteOn({ who, pages, notebook }: { who: string; pages: number; notebook: ReactNode }) {
  return pages === 1 ? (
    <Trans>
      {who} wrote on a page of {notebook}
    </Trans>
  ) : (
    <Trans>
      {who} wrote on {pages} pages of {notebook}
    </Trans>
  );
}
