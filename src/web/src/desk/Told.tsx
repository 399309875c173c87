import { t } from '@lingui/core/macro';
import { PencilLineIcon } from '@phosphor-icons/react';
import { Link } from 'react-router';
import { usePersonal } from '../data/usePersonal';
import { openPath } from '../model/items';
import { whenWords } from '../model/time';
import { Avatar } from '../ui/Avatar';
import { Button } from '../ui/Button';

/** What somebody said to a mark that is meant for the person: it names them, or answers what they asked. */
export interface ToldAnswer {
  space: string;
  notebook: string;
  notebookName: string;
  page: string;
  pageNumber: number;
  spot: string;
  mark: string;
  note: string;
  id: string;
  person: string;
  name: string;
  colour: string;
  /** UTC ms. */
  at: number;
  text: string;
  inked: boolean;
  mentions: boolean;
  /** When it came to the server, UTC ms: by that it has been seen. */
  received: number;
}

const most = 5;

/** What was said to one since one has seen it; each line leads there. */
export function Told({ told }: { told: readonly ToldAnswer[] }) {
  const personal = usePersonal();
  const news = told.filter((one) => one.received > (personal?.toldUntil ?? 0));
  if (!personal || news.length === 0) return null;
  return (
    <section aria-label={t`Said to you`} data-testid="told" className="mt-5">
      <h2 className="flex items-center gap-3 border-b border-base-300 text-[20px]">
        <span className="grow">{t`Said to you`}</span>
        <Button
          look="plain"
          className="font-sans text-[14px]"
          data-testid="told-seen"
          onClick={() => personal.setToldUntil(news[0]!.received)}
        >{t`Seen`}</Button>
      </h2>
      <ul>
        {news.slice(0, most).map((one) => (
          <li
            key={`${one.page}${one.id}`}
            className="flex items-start gap-3 border-b border-base-300 py-2.5"
            data-testid="told-line"
          >
            <Avatar name={one.name} colour={one.colour} size={26} />
            <Link
              to={`${openPath(one.space, one.notebook, one.page)}?mark=${one.spot}`}
              className="min-w-0 grow leading-snug hover:underline"
            >
              <span className="line-clamp-2 [overflow-wrap:anywhere]">
                {one.text || (
                  <>
                    <PencilLineIcon size={18} weight="light" className="inline" aria-hidden="true" />{' '}
                    {t`an answer by hand`}
                  </>
                )}
              </span>
              <span className="block text-[13px] text-quiet">
                {one.mentions
                  ? t`${one.name} to you, ${one.notebookName}, page ${one.pageNumber}, ${whenWords(one.at)}`
                  : one.note
                    ? t`${one.name} answers “${one.note}”, ${one.notebookName}, page ${one.pageNumber}, ${whenWords(one.at)}`
                    : t`${one.name} answers you, ${one.notebookName}, page ${one.pageNumber}, ${whenWords(one.at)}`}
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}
