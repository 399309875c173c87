import { Button, SignButton } from '../ui/Button';
import { t } from '@lingui/core/macro';
import { CheckIcon, LinkSimpleIcon, TrashIcon, XIcon } from '@phosphor-icons/react';
import { useState } from 'react';
import type { Writer } from '../data/usePeople';
import type { OpenDocument } from '../sync/openDocument';
import { useWorkspace } from '../data/useWorkspace';
import { whenWords } from '../model/time';
import { type MarkKind, MarkSign } from './markKinds';
import { setSpot, type Spot } from '../data/spots';
import { Answers } from './Answers';

interface MarkCardProps {
  spot: Spot;
  kinds: MarkKind[];
  page: OpenDocument;
  people: Writer[];
  mayWrite: boolean;
  onCopyLink: () => void;
  onClose: () => void;
}

/** What a mark says, to be changed and ticked off in place. */
export function MarkCard({ spot, kinds, page, people, mayWrite, onCopyLink, onClose }: MarkCardProps) {
  const { core } = useWorkspace();
  const kind = kinds.find((one) => one.id === spot.mark);
  const [note, setNote] = useState(spot.note ?? '');
  const isAsk = spot.mark === 'ask';
  const set = (values: Parameters<typeof setSpot>[3]) => setSpot(core, page, spot.id, values);
  const keepNote = () => note.trim() !== (spot.note ?? '') && set({ note: note.trim().slice(0, 2000) });
  const nameOf = (id: string | undefined) =>
    people.find((person) => person.id === id)?.name.split(' ')[0] ?? 'somebody';
  return (
    // Presses on the card are not presses on the sheet below it.
    // oxlint-disable-next-line jsx-a11y/no-noninteractive-element-interactions
    <div
      role="dialog"
      tabIndex={-1}
      aria-label={t`Mark: ${kind?.words ?? t`Mark`}`}
      data-testid="mark-card"
      className="min-h-0 w-[300px] overflow-y-auto rounded-lg border border-base-300 bg-base-100 p-3 shadow-md"
      onPointerDown={(event) => event.stopPropagation()}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key !== 'Escape') return;
        keepNote();
        onClose();
      }}
    >
      <div className="flex items-center gap-2">
        <MarkSign kind={kind} done={Boolean(spot.doneAt)} />
        <h3 className="grow text-[16px]">{kind?.words ?? t`Mark`}</h3>
        <SignButton label={t`Copy a link to this mark`} onClick={onCopyLink}>
          <LinkSimpleIcon size={18} />
        </SignButton>
        {mayWrite && (
          <SignButton
            label={t`Take the mark away`}
            data-testid="mark-remove"
            onClick={() => (set({ removed: '1' }), onClose())}
          >
            <TrashIcon size={18} />
          </SignButton>
        )}
        <SignButton label={t`Close`} data-testid="mark-close" onClick={() => (keepNote(), onClose())}>
          <XIcon size={18} />
        </SignButton>
      </div>
      {mayWrite ? (
        <>
          <textarea
            aria-label={t`Note`}
            placeholder={t`A note, if you like`}
            data-testid="mark-note"
            rows={2}
            value={note}
            className="textarea mt-1 min-h-0 w-full border-base-300 bg-base-100 text-[14px]"
            onChange={(event) => setNote(event.target.value)}
            onBlur={keepNote}
          />
          <div className="mt-2 grid grid-cols-2 gap-2">
            <label className="col-span-2 text-[13px] text-quiet">
              {t`Kind`}
              <select
                className="select h-11 w-full border-base-300 bg-base-100 text-[13.5px]"
                value={spot.mark ?? ''}
                data-testid="mark-as"
                onChange={(event) => set({ mark: event.target.value })}
              >
                {!kind && <option value={spot.mark ?? ''}>{t`Mark`}</option>}
                {kinds.map((one) => (
                  <option key={one.id} value={one.id}>
                    {one.words}
                  </option>
                ))}
              </select>
            </label>
            <label className="text-[13px] text-quiet">
              {t`Due`}
              <input
                type="date"
                className="field h-10 text-[13.5px]"
                value={spot.due ?? ''}
                data-testid="mark-due"
                onChange={(event) => set({ due: event.target.value })}
              />
            </label>
            {people.length > 1 && (
              <label className="text-[13px] text-quiet">
                {t`For`}
                <select
                  className="select h-10 w-full border-base-300 bg-base-100 text-[13.5px]"
                  value={spot.person ?? ''}
                  data-testid="mark-person"
                  onChange={(event) => set({ person: event.target.value })}
                >
                  <option value="">{t`nobody`}</option>
                  {people.map((person) => (
                    <option key={person.id} value={person.id}>
                      {person.name.split(' ')[0]}
                    </option>
                  ))}
                </select>
              </label>
            )}
          </div>
        </>
      ) : (
        spot.note && <p className="mt-1 whitespace-pre-wrap [overflow-wrap:anywhere]">{spot.note}</p>
      )}
      <Answers spot={spot} page={page} people={people} mayWrite={mayWrite} />
      <div className="mt-2 flex items-center gap-2 border-t border-base-300 pt-2">
        <p className="grow text-[13px] text-quiet">
          {spot.doneAt
            ? isAsk
              ? t`Settled by ${nameOf(spot.doneBy)}, ${whenWords(spot.doneAt)}`
              : t`Ticked off by ${nameOf(spot.doneBy)}, ${whenWords(spot.doneAt)}`
            : `${nameOf(spot.author)}, ${whenWords(spot.createdAt)}`}
        </p>
        {mayWrite && kind?.opens !== false && (
          <Button
            className="shrink-0 px-3"
            data-testid="mark-tick"
            onClick={() => set({ done: spot.doneAt ? '' : '1' })}
          >
            <CheckIcon size={16} /> {spot.doneAt ? t`Open again` : isAsk ? t`Settled` : t`Tick off`}
          </Button>
        )}
      </div>
    </div>
  );
}
