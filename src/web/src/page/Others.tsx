import { plural, t } from '@lingui/core/macro';
import { BinocularsIcon, UsersIcon } from '@phosphor-icons/react';
import type { OpenNotebook } from '../data/openNotebooks';
import type { Notebook } from '../data/useNotebook';
import type { Writer } from '../data/usePeople';
import { useTeachesIn } from '../data/useLecterns';
import { useFollowed, useStandingIn } from '../data/useWhereabouts';
import { useWorkspace } from '../data/useWorkspace';
import { useSession } from '../server/session';
import { addressOf } from '../sync/address';
import { Avatar } from '../ui/Avatar';
import { Menu, type MenuEntry } from '../ui/Menu';

/** Who else is in the notebook and on which page: one goes there, or follows what they see. */
export function Others({
  at,
  notebook,
  people,
  onGo,
}: {
  at: OpenNotebook;
  notebook: Notebook;
  people: Writer[];
  onGo: (page: string) => void;
}) {
  const { person: me } = useSession();
  const { whereabouts } = useWorkspace();
  const { leader, followedBy } = useFollowed();
  // At a lectern it stands in its own line.
  const isTeaching = useTeachesIn(at.notebook);
  const there = useStandingIn(at.notebook).flatMap((standing) => {
    const person = people.find((one) => one.id === standing.person && one.id !== me.id);
    const page = notebook.find(standing.page);
    return person ? [{ standing, person, page }] : [];
  });
  if (there.length === 0) return null;
  const words = there.map(({ person, page }) =>
    page && page.id !== at.page ? t`${person.name} is on page ${page.number}` : t`${person.name} is on this page`,
  );
  const entries: MenuEntry[] = there.flatMap(({ standing, person, page }) => [
    ...(page && page.id !== at.page
      ? [
          {
            label: t`${firstOf(person)}: go to page ${page.number}`,
            testId: 'go-to-person',
            icon: <Avatar name={person.name} colour={person.colour} size={24} />,
            onChoose: () => onGo(page.id),
          },
        ]
      : []),
    leader === standing.connection
      ? {
          label: t`Follow ${firstOf(person)} no more`,
          testId: 'unfollow-person',
          icon: <BinocularsIcon size={20} />,
          onChoose: () => whereabouts.unfollow(),
        }
      : {
          label: t`Follow ${firstOf(person)}`,
          testId: 'follow-person',
          icon: <BinocularsIcon size={20} weight="light" />,
          onChoose: () => whereabouts.follow(standing.connection, addressOf(at.space, 'notebook', at.notebook)),
        },
  ]);
  const followed =
    followedBy > 0 && !isTeaching ? plural(followedBy, { one: 'One follows you', other: '# follow you' }) : '';
  const elsewhere = there.filter(({ page }) => page && page.id !== at.page);
  return (
    <span className="flex shrink-0 items-center" data-testid="others" data-followed={followedBy}>
      {followed && (
        <span className="text-[13px] text-quiet max-lg:hidden" data-testid="followed-by">
          {followed}
        </span>
      )}
      {elsewhere.slice(0, 3).map(({ standing, person, page }) => (
        <button
          key={standing.connection}
          type="button"
          className="relative grid h-11 w-9 place-items-center max-md:hidden"
          aria-label={t`${person.name} is on page ${page!.number}: go there`}
          title={t`${person.name} is on page ${page!.number}`}
          data-testid="elsewhere"
          onClick={() => onGo(page!.id)}
        >
          <Avatar name={person.name} colour={person.colour} size={26} />
          <span
            aria-hidden="true"
            className="absolute bottom-0 end-0 min-w-4 rounded-sm border border-base-300 bg-base-100 px-0.5 text-center text-[11px] leading-4"
          >
            {page!.number}
          </span>
        </button>
      ))}
      <Menu
        label={[followed, ...words].filter(Boolean).join('. ')}
        testId="others-menu"
        icon={<UsersIcon size={22} weight="light" />}
        entries={entries}
      />
    </span>
  );
}

const firstOf = (person: Writer) => person.name.split(' ')[0]!;
