import { t } from '@lingui/core/macro';
import { DotsThreeIcon, HandshakeIcon, PencilSimpleIcon, SignOutIcon, TrashIcon } from '@phosphor-icons/react';
import { type ReactNode, useState } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import { fillOf } from '../model/colours';
import { may } from '../data/rights';
import { usePeople } from '../data/usePeople';
import { useSyncState } from '../sync/syncState';
import { type Space, useSession } from '../server/session';
import { TermsField } from '../settings/TermsField';
import { Usage } from '../settings/Usage';
import { Button } from '../ui/Button';
import { FormDialog, Problem } from '../ui/FormDialog';
import { UnsentNote } from '../ui/UnsentNote';
import { Menu, type MenuEntry } from '../ui/Menu';
import { AtTheDoor } from './AtTheDoor';
import { Dissolved } from './Dissolved';
import { GroupDialog } from './GroupDialog';
import { useGroupActs } from './groups';
import { WhatHappened } from '../history/WhatHappened';
import { Invitations } from './Invitations';
import { InviteDialog } from './InviteDialog';
import { MakeGroup } from './MakeGroup';
import { Members } from './Members';
import { NoGroup } from './NoGroup';

type Asking = 'look' | 'hand-over' | 'leave' | 'dissolve';

/** A group: its people and who may do what, who is invited and who asks, how much it holds. */
export function GroupScreen() {
  const { space: id } = useParams();
  const { spaces } = useSession();
  const groups = spaces.filter((space) => !space.personal);
  const space = id ? groups.find((one) => one.id === id) : groups[0];
  if (!space) return <NoGroup isMissing={id !== undefined} />;
  return <OneGroup key={space.id} space={space} groups={groups} />;
}

function OneGroup({ space, groups }: { space: Space; groups: Space[] }) {
  const acts = useGroupActs();
  const [search, setSearch] = useSearchParams();
  const [asking, setAsking] = useState<Asking>();
  const isInviting = search.has('invite') && may(space, 'ManagePeople');
  const invite = (on: boolean) => setSearch(on ? { invite: '' } : {}, { replace: true });
  const close = () => setAsking(undefined);
  const menu: MenuEntry[] = [
    ...(may(space, 'ChangeGroup')
      ? [
          {
            label: t`Name, colour and rules`,
            testId: 'group-look',
            icon: <PencilSimpleIcon size={20} weight="light" />,
            onChoose: () => setAsking('look'),
          },
          {
            label: t`Hand the group over`,
            testId: 'group-hand-over',
            icon: <HandshakeIcon size={20} weight="light" />,
            onChoose: () => setAsking('hand-over'),
          },
        ]
      : []),
    {
      label: t`Leave the group`,
      testId: 'group-leave',
      icon: <SignOutIcon size={20} weight="light" />,
      onChoose: () => setAsking('leave'),
    },
    ...(may(space, 'DissolveGroup')
      ? [
          {
            label: t`Dissolve the group`,
            testId: 'group-dissolve',
            icon: <TrashIcon size={20} weight="light" />,
            onChoose: () => setAsking('dissolve'),
          },
        ]
      : []),
  ];
  return (
    <div className="relative h-full overflow-y-auto">
      <div className="mx-auto max-w-[860px] px-10 pb-16 pt-7 max-sm:px-5">
        <nav aria-label={t`Groups`} className="flex flex-wrap items-center gap-x-5">
          {groups.length === 1 && <span className="text-quiet">{t`Group`}</span>}
          {(groups.length > 1 ? groups : []).map((one) => (
            <Link
              key={one.id}
              to={`/group/${one.id}`}
              aria-current={one.id === space.id ? 'page' : undefined}
              data-testid="group-tab"
              className={`flex min-h-11 items-center gap-2 ${one.id === space.id ? 'font-semibold' : 'text-quiet hover:text-base-content'}`}
            >
              <span className={`size-3 rounded-full ${fillOf[one.colour ?? ''] ?? 'bg-spruce'}`} />
              <span className="max-w-56 truncate">{one.name}</span>
            </Link>
          ))}
          <span className="grow" />
          <MakeGroup />
        </nav>
        <header className="mt-3 flex flex-wrap items-end gap-2 border-b border-base-300 pb-4">
          <h1 className="min-w-64 grow basis-0 text-[30px] leading-tight">
            <span
              aria-hidden="true"
              className={`me-3 inline-block h-6 w-1.5 rounded-sm ${fillOf[space.colour ?? ''] ?? 'bg-spruce'}`}
            />
            {space.name}
          </h1>
          <span className="flex items-center gap-2">
            {may(space, 'ManagePeople') && (
              <Button look="primary" data-testid="invite-people" onClick={() => invite(true)}>{t`Invite`}</Button>
            )}
            <Menu label={t`More for the group`} testId="group-menu" icon={<DotsThreeIcon size={24} />} entries={menu} />
          </span>
        </header>
        <AtTheDoor space={space.id} />
        {space.touch && space.touch !== 'everything' && (
          <p className="border-b border-base-300 py-3 text-quiet" data-testid="touch-rule">
            {space.touch === 'own'
              ? t`Writers change only what they wrote themselves; owners change everything.`
              : t`Writers only add, and change nothing that is there; owners change everything.`}
          </p>
        )}
        <Members space={space} />
        <h2 className="mt-10 border-b border-base-300 pb-2 text-[20px]">{t`What happened`}</h2>
        <WhatHappened within={{ space: space.id }} />
        {may(space, 'ManagePeople') && <Invitations space={space.id} group={space.name} />}
        <h2 className="mt-10 border-b border-base-300 pb-2 text-[20px]">{t`How much it is`}</h2>
        <p className="pb-3 pt-2 text-quiet">{t`What this library holds on the server, and what it may hold.`}</p>
        <Usage space={space.id} />
        <h2 className="mt-10 border-b border-base-300 pb-2 text-[20px]">{t`Terms`}</h2>
        <p className="pt-2 text-quiet">{t`Lenses that ask for “this term” go by these days.`}</p>
        <TermsField space={space.id} mayWrite={may(space, 'Write')} />
        <Dissolved />
      </div>
      {isInviting && <InviteDialog space={space.id} group={space.name} onClose={() => invite(false)} />}
      {asking === 'look' && (
        <GroupDialog
          title={t`Name, colour and rules`}
          confirm={t`Use these`}
          name={space.name}
          colour={space.colour}
          touch={space.touch ?? 'everything'}
          isPastClosed={space.isPastClosed ?? false}
          onConfirm={(name, colour, touch, closed) => acts.change(space.id, name, colour, touch, closed)}
          onClose={close}
        />
      )}
      {asking === 'hand-over' && <HandOver space={space} onClose={close} />}
      {asking === 'leave' && (
        <Parting
          title={t`Leave “${space.name}”?`}
          confirm={t`Leave`}
          onConfirm={() => acts.leave(space.id)}
          onClose={close}
        >
          <p>{t`What you wrote stays in the group. Its notebooks leave your devices. You can be invited again.`}</p>
        </Parting>
      )}
      {asking === 'dissolve' && (
        <Parting
          title={t`Dissolve “${space.name}”?`}
          confirm={t`Dissolve`}
          onConfirm={() => acts.dissolve(space.id)}
          onClose={close}
        >
          <p>{t`Its notebooks leave everybody’s devices. For 30 days you can have it back as it was, with all who are in it; after that all that was written in it is gone for good.`}</p>
        </Parting>
      )}
    </div>
  );
}

/** Asks before one parts with a group. What is not sent yet would stay behind on this device, so it is waited for. */
function Parting({
  title,
  confirm,
  onConfirm,
  onClose,
  children,
}: {
  title: string;
  confirm: string;
  onConfirm: () => Promise<void>;
  onClose: () => void;
  children: ReactNode;
}) {
  const { waiting } = useSyncState();
  return (
    <FormDialog title={title} confirm={confirm} disabled={waiting > 0} onConfirm={onConfirm} onClose={onClose}>
      {(problem) => (
        <>
          {children}
          <UnsentNote />
          <Problem words={problem} testId="parting-problem" />
        </>
      )}
    </FormDialog>
  );
}

function HandOver({ space, onClose }: { space: Space; onClose: () => void }) {
  const { person } = useSession();
  const acts = useGroupActs();
  const others = usePeople(space.id).filter((member) => member.id !== person.id);
  const [heir, setHeir] = useState('');
  return (
    <FormDialog
      title={t`Hand “${space.name}” over`}
      confirm={t`Hand over`}
      disabled={heir === ''}
      onConfirm={async () => void (await acts.handOver(space.id, heir))}
      onClose={onClose}
    >
      {(problem) => (
        <>
          <p className="mb-3">
            {others.length > 0
              ? t`Somebody else becomes the owner, and you a writer.`
              : t`Nobody else is in this group yet. Invite somebody first.`}
          </p>
          {others.map((member) => (
            <label key={member.id} className="flex min-h-11 items-center gap-3">
              <input
                type="radio"
                name="heir"
                className="radio radio-primary radio-sm"
                data-testid="heir"
                checked={heir === member.id}
                onChange={() => setHeir(member.id)}
              />
              {member.name}
            </label>
          ))}
          <Problem words={problem} />
        </>
      )}
    </FormDialog>
  );
}
