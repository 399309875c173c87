import { plural, t } from '@lingui/core/macro';
import {
  CursorIcon,
  FlashlightIcon,
  HandPalmIcon,
  MinusIcon,
  PlusIcon,
  ProjectorScreenIcon,
  QuestionIcon,
  XIcon,
} from '@phosphor-icons/react';
import { type ReactNode, useState, useSyncExternalStore } from 'react';
import { useFollowed } from '../data/useWhereabouts';
import { useWorkspace } from '../data/useWorkspace';
import type { OwnLectern } from '../sync/lecterns';
import { Button, SignButton, Toggle } from '../ui/Button';
import { Menu } from '../ui/Menu';
import { Line, type LecternLineProps } from './Line';
import { leastLight, lightStep, mostLight } from './light';
import { RoomDialog } from './RoomDialog';
import { useTeaching } from './useTeaching';

/** A sign and its word in one line. */
const sign = 'inline-flex items-center gap-1.5 bg-base-100 px-3';

/** What somebody teaches with: pointer and spotlight, who raises a hand, what was asked, and the screen for the room. */
export function Leading({ at, lectern, notebook, people, marks, onGo }: LecternLineProps & { lectern: OwnLectern }) {
  const { lecterns } = useWorkspace();
  const { followedBy } = useFollowed();
  const hands = useSyncExternalStore(lecterns.subscribe, lecterns.raisedHands);
  const { close } = useTeaching();
  const [room, setRoom] = useState(false);
  const asks = marks
    .filter((spot) => spot.mark === 'ask' && spot.createdAt >= lectern.openedAt)
    .sort((one, other) => one.createdAt - other.createdAt);
  const open = asks.filter((ask) => ask.open);
  const nameOf = (person: string) => people.find((one) => one.id === person)?.name.split(' ')[0] ?? t`Somebody`;
  const numberOf = (page: string) => notebook.find(page)?.number ?? 0;
  const grow = (by: number) => {
    const { spot } = lectern;
    if (spot) lecterns.light({ ...spot, radius: Math.min(mostLight, Math.max(leastLight, spot.radius * by)) });
  };
  return (
    <Line
      testId="leading"
      words={
        <>
          {t`You teach from this notebook.`}{' '}
          <span className="text-quiet" data-testid="followers">
            {plural(followedBy, { 0: 'Nobody follows yet', one: 'One follows', other: '# follow' })}
          </span>
        </>
      }
    >
      {hands.length > 0 && (
        <Menu
          label={plural(hands.length, { one: '# hand is raised', other: '# hands are raised' })}
          testId="hands"
          icon={
            <Counted sign={<HandPalmIcon size={22} weight="fill" className="text-accent" />} count={hands.length} />
          }
          entries={hands.map((hand) => ({
            label: t`${nameOf(hand.person)} raises a hand: seen`,
            testId: 'lower-hand',
            icon: <HandPalmIcon size={20} weight="light" />,
            onChoose: () => lecterns.lower(hand),
          }))}
        />
      )}
      {asks.length > 0 && (
        <Menu
          label={plural(open.length, {
            0: 'Asks of this lesson, none open',
            one: '# open ask of this lesson',
            other: '# open asks of this lesson',
          })}
          testId="lesson-asks"
          icon={<Counted sign={<QuestionIcon size={22} weight="light" />} count={open.length} />}
          entries={asks.map((ask) => ({
            label: [t`${nameOf(ask.author)}, page ${numberOf(ask.page)}`, ask.note || (ask.open ? '' : t`ticked off`)]
              .filter(Boolean)
              .join(': '),
            testId: 'lesson-ask',
            icon: <QuestionIcon size={20} weight={ask.open ? 'regular' : 'thin'} />,
            onChoose: () => onGo(ask.page, ask.id),
          }))}
        />
      )}
      <Toggle
        on={lectern.hand === 'pointer'}
        data-testid="point"
        className={sign}
        title={t`The pen points: a trail that fades, and nothing is kept`}
        onClick={() => lecterns.take(lectern.hand === 'pointer' ? 'pen' : 'pointer')}
      >
        <CursorIcon size={20} weight="light" /> <span className="@max-4xl:sr-only">{t`Pointer`}</span>
      </Toggle>
      <Toggle
        on={lectern.hand === 'spotlight'}
        data-testid="light"
        className={sign}
        title={t`The pen lights one place, and all around it is dimmed`}
        onClick={() => lecterns.take(lectern.hand === 'spotlight' ? 'pen' : 'spotlight')}
      >
        <FlashlightIcon size={20} weight="light" /> <span className="@max-4xl:sr-only">{t`Spotlight`}</span>
      </Toggle>
      {lectern.spot && (
        <>
          <SignButton label={t`Smaller light`} data-testid="light-smaller" onClick={() => grow(1 / lightStep)}>
            <MinusIcon size={18} />
          </SignButton>
          <SignButton label={t`Larger light`} data-testid="light-larger" onClick={() => grow(lightStep)}>
            <PlusIcon size={18} />
          </SignButton>
        </>
      )}
      <SignButton label={t`A screen for the room`} data-testid="room" onClick={() => setRoom(true)}>
        <ProjectorScreenIcon size={22} weight="light" />
      </SignButton>
      <Button
        title={t`Close the lectern`}
        className="@max-4xl:px-3"
        data-testid="close-lectern"
        onClick={() => void close(at.space, at.notebook)}
      >
        <XIcon size={20} weight="light" className="@4xl:hidden" aria-hidden="true" />
        <span className="@max-4xl:sr-only">{t`Close the lectern`}</span>
      </Button>
      {room && <RoomDialog space={at.space} notebook={at.notebook} onClose={() => setRoom(false)} />}
    </Line>
  );
}

function Counted({ sign: of, count }: { sign: ReactNode; count: number }) {
  return (
    <span className="relative">
      {of}
      {count > 0 && (
        <span
          aria-hidden="true"
          className="absolute -bottom-1.5 -end-2 min-w-4 rounded-sm border border-base-300 bg-base-100 px-0.5 text-center text-[11px] leading-4"
        >
          {count}
        </span>
      )}
    </span>
  );
}
