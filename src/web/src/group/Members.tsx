import { t } from '@lingui/core/macro';
import { UserMinusIcon } from '@phosphor-icons/react';
import { useState } from 'react';
import { Link } from 'react-router';
import { openPath, stripPath } from '../model/items';
import { PagePicture } from '../pictures/PagePicture';
import { sentenceOf } from '../core/runtime';
import { type Member, usePeople } from '../data/usePeople';
import { may } from '../data/rights';
import { type Role, roleNames, type Space, useSession } from '../server/session';
import { Avatar } from '../ui/Avatar';
import { SignButton } from '../ui/Button';
import { ConfirmDialog } from '../ui/naming';
import { say } from '../ui/saying';
import { roleWords, useGroupActs, useLastPages } from './groups';

/** A strip of what somebody wrote last; pixels. */
const strip = { width: 84, height: 56 };

/** The people of a group, who may do what, and what each wrote last. */
export function Members({ space }: { space: Space }) {
  const { person } = useSession();
  const people = usePeople(space.id);
  const acts = useGroupActs();
  const [leaving, setLeaving] = useState<Member>();
  const last = useLastPages(space.id);
  const mayManage = may(space, 'ManagePeople');
  const owners = people.filter((member) => member.role === 'owner').length;
  const tell = (problem: unknown) => say(sentenceOf(problem));
  return (
    <>
      <ul>
        {people.map((member) => {
          // The last owner stays one: what the server would refuse is not offered.
          const isLast = member.role === 'owner' && owners === 1;
          return (
            <li
              key={member.id}
              className="flex items-center gap-4 max-md:gap-2.5 border-b border-base-300 py-4"
              data-testid="member"
            >
              <Avatar name={member.name} colour={member.colour} size={40} />
              <div className="min-w-0 grow">
                <p className="line-clamp-2 font-title text-[18px]">
                  {member.name}
                  {member.id === person.id && <span className="ms-2 font-sans text-[13px] text-quiet">{t`you`}</span>}
                </p>
                <p className="text-[13px] text-quiet">{roleWords[member.role]}</p>
              </div>
              <span className="flex shrink-0 gap-2 max-lg:[&>:nth-child(3)]:hidden max-md:hidden">
                {(last.get(member.id) ?? []).map((page) => (
                  <Link
                    key={page.id}
                    to={openPath(space.id, page.notebook, page.id)}
                    aria-label={t`What ${member.name} wrote on page ${page.number}`}
                    data-testid="last-page"
                  >
                    <PagePicture
                      address={stripPath(space.id, page)}
                      width={strip.width}
                      height={strip.height}
                      fit="object-cover object-top"
                      className="hover:border-primary"
                    />
                  </Link>
                ))}
              </span>
              <span className="flex w-[188px] shrink-0 items-center justify-end gap-2 max-md:w-auto">
                {mayManage && !isLast ? (
                  <select
                    aria-label={t`Role of ${member.name}`}
                    className="select h-11 w-32 border-base-300 max-md:w-26 bg-base-100"
                    value={member.role}
                    onChange={(event) => void acts.setRole(space.id, member.id, event.target.value as Role).catch(tell)}
                  >
                    {Object.entries(roleNames).map(([role, name]) => (
                      <option key={role} value={role}>
                        {name}
                      </option>
                    ))}
                  </select>
                ) : (
                  <span className="text-quiet">{roleNames[member.role]}</span>
                )}
                {mayManage && member.id !== person.id && (
                  <SignButton
                    label={t`Take ${member.name} out of the group`}
                    data-testid="take-out"
                    onClick={() => setLeaving(member)}
                  >
                    <UserMinusIcon size={20} weight="light" />
                  </SignButton>
                )}
              </span>
            </li>
          );
        })}
      </ul>
      {leaving && (
        <ConfirmDialog
          title={t`Take ${leaving.name} out of “${space.name}”?`}
          confirm={t`Take out`}
          onConfirm={() => void acts.setRole(space.id, leaving.id, 'none').catch(tell)}
          onClose={() => setLeaving(undefined)}
        >
          <p>{t`What was written stays here. It leaves their devices at once; they can be invited again.`}</p>
        </ConfirmDialog>
      )}
    </>
  );
}
