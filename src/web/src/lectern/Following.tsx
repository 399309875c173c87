import { t } from '@lingui/core/macro';
import { HandPalmIcon, NoteBlankIcon, QuestionIcon } from '@phosphor-icons/react';
import { useSyncExternalStore } from 'react';
import { may } from '../data/rights';
import { useFollowedLectern } from '../data/useLecterns';
import { useWorkspace } from '../data/useWorkspace';
import { useSession } from '../server/session';
import { aside } from '../sheet/tools/aside';
import { mark } from '../sheet/tools/mark';
import { type Lectern, notebookOf } from '../sync/lecterns';
import { Button, Toggle } from '../ui/Button';
import { Line, type LecternLineProps } from './Line';
import { useTeaching } from './useTeaching';

/** That somebody teaches from the notebook: one follows, looks elsewhere, comes back, raises a hand, or asks at a spot. */
export function Following({
  at,
  space,
  notebook,
  people,
  tools,
  lectern,
}: LecternLineProps & {
  /** Undefined while the leader's connection is away. */
  lectern: Lectern | undefined;
}) {
  const { lecterns, whereabouts } = useWorkspace();
  const { person: me } = useSession();
  const follows = useFollowedLectern() !== '';
  const isHandUp = useSyncExternalStore(lecterns.subscribe, lecterns.isHandUp);
  const { open } = useTeaching();
  const leader = people.find((one) => one.id === lectern?.leader)?.name ?? t`Somebody`;
  const page = lectern && notebook.find(lectern.page);
  if (lectern?.leader === me.id)
    return (
      <Line testId="leading-elsewhere" words={t`You teach from this notebook in another window.`}>
        <Button data-testid="teach-here" onClick={() => void open(at.space, at.notebook, at.page)}>
          {t`Teach from here`}
        </Button>
      </Line>
    );
  const ask = () => {
    tools.change(mark, { kind: 'ask' });
    if (tools.held !== mark.name) tools.toggle(mark.name);
  };
  const isAsking = tools.held === mark.name && tools.settingsOf(mark).kind === 'ask';
  const words = !lectern
    ? t`Whoever you follow has no connection at this moment. You go on together as soon as it is back.`
    : isAsking
      ? t`Press where you ask; ${leader} sees it at once.`
      : follows
        ? t`You follow ${leader}.`
        : page && page.id !== at.page
          ? t`${leader} teaches, on page ${page.number}.`
          : t`${leader} teaches from this notebook.`;
  return (
    <Line testId="taught" words={words}>
      {may(space, 'Write') && !tools.reading && (
        <Button data-testid="ask-here" onClick={ask}>
          <QuestionIcon size={20} weight="light" /> {t`Ask`}
        </Button>
      )}
      <Toggle
        on={tools.isOn(aside.name)}
        className="inline-flex items-center gap-2 bg-base-100 px-3"
        data-testid="lesson-aside"
        onClick={() => aside.press(tools)}
      >
        <NoteBlankIcon size={20} weight="light" /> <span className="@max-2xl:sr-only">{t`Your aside`}</span>
      </Toggle>
      <Toggle
        on={isHandUp}
        className="inline-flex items-center gap-2 bg-base-100 px-3"
        data-testid="raise-hand"
        onClick={() => lecterns.raise(notebookOf(at), !isHandUp)}
      >
        <HandPalmIcon size={20} weight={isHandUp ? 'fill' : 'light'} />{' '}
        <span className="@max-2xl:sr-only">{isHandUp ? t`Your hand is up` : t`Raise a hand`}</span>
      </Toggle>
      {follows ? (
        <Button data-testid="look-myself" onClick={() => whereabouts.unfollow()}>{t`Look by myself`}</Button>
      ) : (
        <Button look="primary" data-testid="follow-lectern" onClick={() => lectern && lecterns.follow(lectern)}>
          {t`Follow`}
        </Button>
      )}
    </Line>
  );
}
