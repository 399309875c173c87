import { plural, t } from '@lingui/core/macro';
import { CheckIcon } from '@phosphor-icons/react';
import { useState } from 'react';
import { Link } from 'react-router';
import { openPath } from '../model/items';
import { type MarkKind, MarkSign } from '../spots/markKinds';
import { aroundSpot, partPath, type ShownSpot } from '../data/spots';
import { InkCut } from '../spots/InkCut';
import { dayKey } from '../model/time';
import { dateLocale } from '../words/language';

interface FollowUpLineProps {
  mark: ShownSpot;
  kind: MarkKind | undefined;
  about: string;
  width: number;
  height: number;
  onTick?: (() => void) | undefined;
}

/** A follow-up as the ink itself, cut from its page, so that it needs no opening. */
export function FollowUpLine({ mark, kind, about, width, height, onTick }: FollowUpLineProps) {
  const area = aroundSpot(mark.area, width, height);
  const late = mark.due && mark.due < dayKey() && !mark.doneAt;
  return (
    <div
      className="flex items-center gap-4 max-sm:flex-wrap max-sm:gap-y-1 border-b border-base-300 py-2.5"
      data-testid="follow-up"
      data-mark={mark.mark}
      data-done={mark.doneAt ? '1' : undefined}
      data-answered={mark.isAnswered ? '1' : undefined}
    >
      <MarkSign kind={kind} done={Boolean(mark.doneAt)} answered={mark.isAnswered} />
      <Link
        to={`${openPath(mark.space, mark.notebook, mark.page)}?mark=${mark.id}`}
        aria-label={t`${mark.note ? `${kind?.words ?? t`Mark`}: ${mark.note}` : (kind?.words ?? t`Mark`)}, ${mark.notebookName}, page ${mark.pageNumber}`}
        className="block shrink overflow-hidden max-sm:grow max-sm:basis-0 border border-base-300 bg-paper hover:border-primary"
      >
        <PartPicture mark={mark} area={area} width={width} height={height} />
      </Link>
      <div className="min-w-0 grow leading-snug max-sm:order-last max-sm:basis-full">
        {mark.note && <p className="line-clamp-2 [overflow-wrap:anywhere]">{mark.note}</p>}
        <p className="text-[13px] text-quiet">
          {about}
          {mark.answers > 0 && (
            <>
              {about ? ', ' : ''}
              <span className="font-semibold text-primary">
                {plural(mark.answers, { one: '# answer', other: '# answers' })}
              </span>
            </>
          )}
          {mark.due && (
            <span className={late ? 'font-semibold text-accent' : ''}>
              {about ? ', ' : ''}
              {t`due ${dueWords(mark.due)}`}
            </span>
          )}
        </p>
      </div>
      {onTick && (
        <button
          type="button"
          aria-label={mark.doneAt ? t`Open it again` : t`Tick it off`}
          title={mark.doneAt ? t`Open it again` : t`Tick it off`}
          data-testid="tick-off"
          data-tick={mark.id}
          className={`grid size-11 shrink-0 place-items-center rounded-full border ${mark.doneAt ? 'border-quiet text-quiet' : 'border-base-300 hover:border-primary'}`}
          onClick={onTick}
        >
          <CheckIcon size={18} weight={mark.doneAt ? 'bold' : 'regular'} />
        </button>
      )}
    </div>
  );
}

/** From the server, which draws such parts once for all; from the device where that cannot be had. */
function PartPicture({
  mark,
  area,
  width,
  height,
}: {
  mark: ShownSpot;
  area: readonly [number, number, number, number];
  width: number;
  height: number;
}) {
  const address = partPath(mark, area);
  const [failed, setFailed] = useState('');
  if (failed === address)
    return <InkCut space={mark.space} page={mark.page} paper={mark.paper} area={area} width={width} height={height} />;
  return (
    <img
      src={address}
      alt=""
      width={width}
      height={height}
      loading="lazy"
      className="block"
      onError={() => setFailed(address)}
    />
  );
}

function dueWords(day: string): string {
  return new Date(`${day}T12:00:00`).toLocaleDateString(dateLocale(), {
    weekday: 'long',
    day: 'numeric',
    month: 'long',
  });
}
