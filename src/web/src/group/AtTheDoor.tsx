import { t } from '@lingui/core/macro';
import type { ReactNode } from 'react';
import { fillOf } from '../model/colours';
import { whenWords } from '../model/time';
import { sentenceOf } from '../core/runtime';
import { Avatar } from '../ui/Avatar';
import { Button } from '../ui/Button';
import { say } from '../ui/saying';
import { invitedAs, useDoor, useGroupActs } from './groups';

/** Invitations into groups, and those who ask to be let into one's own: each is answered where it stands. Nothing while nobody is at the door. */
export function AtTheDoor({ space }: { space?: string }) {
  const door = useDoor();
  const acts = useGroupActs();
  const invited = space ? [] : door.invited;
  const asking = door.asking.filter((one) => !space || one.space === space);
  if (invited.length + asking.length === 0) return null;
  const answer = (work: Promise<unknown>) => void work.catch((problem: unknown) => say(sentenceOf(problem)));
  return (
    <section aria-label={t`At the door`} className="mt-5 border-b border-base-300 pb-2" data-testid="at-the-door">
      <h2 className="text-[18px]">{t`At the door`}</h2>
      <ul>
        {invited.map((one) => (
          <Standing
            key={one.id}
            testId="invited"
            sign={<span className={`size-7 rounded-full ${fillOf[one.colour] ?? 'bg-spruce'}`} />}
            words={t`${one.by} invites you to “${one.group}”.`}
            about={invitedAs[one.role]}
            yes={t`Come in`}
            no={t`No, thank you`}
            onAnswer={(yes) => answer(acts.answerInvitation(one.id, yes))}
          />
        ))}
        {asking.map((one) => (
          <Standing
            key={one.space + one.person}
            testId="asking"
            sign={<Avatar name={one.name} colour={one.colour} />}
            words={t`${one.name} asks to come into “${one.group}”.`}
            about={whenWords(one.askedAt)}
            yes={t`Let in`}
            no={t`Turn away`}
            onAnswer={(yes) => answer(acts.answerRequest(one.space, one.person, yes))}
          />
        ))}
      </ul>
    </section>
  );
}

function Standing({
  testId,
  sign,
  words,
  about,
  yes,
  no,
  onAnswer,
}: {
  testId: string;
  sign: ReactNode;
  words: string;
  about: string;
  yes: string;
  no: string;
  onAnswer: (yes: boolean) => void;
}) {
  return (
    <li
      className="flex flex-wrap items-center gap-3 border-b border-base-300 py-2.5 last:border-0"
      data-testid={testId}
    >
      {sign}
      <div className="min-w-48 grow basis-0">
        <p>{words}</p>
        <p className="text-[13px] text-quiet">{about}</p>
      </div>
      <span className="flex items-center gap-2">
        <Button data-testid={`${testId}-yes`} onClick={() => onAnswer(true)}>
          {yes}
        </Button>
        <Button look="plain" data-testid={`${testId}-no`} onClick={() => onAnswer(false)}>
          {no}
        </Button>
      </span>
    </li>
  );
}
