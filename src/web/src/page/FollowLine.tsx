import { t } from '@lingui/core/macro';
import { BinocularsIcon } from '@phosphor-icons/react';
import { useEffect, useRef } from 'react';
import type { Writer } from '../data/usePeople';
import { useFollowed, useStandings } from '../data/useWhereabouts';
import { useWorkspace } from '../data/useWorkspace';
import { Button } from '../ui/Button';
import { say } from '../ui/saying';

/** Says over the sheet whom one follows, and that a touch ends it. */
export function FollowLine({ people }: { people: Writer[] }) {
  const { whereabouts } = useWorkspace();
  const { leader } = useFollowed();
  const all = useStandings();
  const standing = all.find((one) => one.connection === leader);
  const person = people.find((one) => one.id === standing?.person);
  const followed = useRef<{ name: string; connection: string }>(undefined);
  useEffect(() => {
    if (leader && person) followed.current = { name: person.name, connection: leader };
    else if (!leader && followed.current) {
      const { name, connection } = followed.current;
      followed.current = undefined;
      if (!all.some((one) => one.connection === connection)) say(t`${name} has gone. You look by yourself again.`);
    }
  }, [leader, person, all]);
  if (!leader || !person) return null;
  return (
    <div
      role="status"
      data-testid="following"
      className="absolute inset-x-2 top-3 z-20 mx-auto flex w-fit items-center gap-3 rounded-lg border border-base-300 bg-base-100 ps-4 pe-1.5 shadow-lg"
    >
      <BinocularsIcon size={20} weight="light" className="shrink-0" aria-hidden="true" />
      <span className="py-2.5">{t`You follow ${person.name}. Touch the sheet to look by yourself.`}</span>
      <Button data-testid="unfollow" onClick={() => whereabouts.unfollow()}>{t`Stop`}</Button>
    </div>
  );
}
