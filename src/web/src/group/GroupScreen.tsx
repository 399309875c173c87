import { t } from '@lingui/core/macro';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useParams } from 'react-router';
import { TermsField } from '../settings/TermsField';
import { sendJson } from '../server/api';
import { type Role, roleNames, useSession } from '../server/session';
import { Usage } from '../settings/Usage';
import { Avatar } from '../ui/Avatar';
import { usePeople } from '../data/usePeople';
import { sentenceOf } from '../core/runtime';

const roleWords: Record<Role, string> = {
  owner: t`writes, and decides who may do what`,
  writer: t`reads and writes everything here`,
  reader: t`reads everything here`,
};

/** The people of a group, and who may do what. */
export function GroupScreen() {
  const { space: id = '' } = useParams();
  const { person, spaces } = useSession();
  const space = spaces.find((one) => one.id === id);
  const people = usePeople(id);
  const queries = useQueryClient();
  const [problem, setProblem] = useState('');
  if (!space) return <p className="p-10">{t`You are not in this group.`}</p>;

  const setRole = async (member: string, role: string) => {
    setProblem('');
    try {
      await sendJson('PUT', `/api/spaces/${id}/members/${member}`, { role });
    } catch (error) {
      setProblem(sentenceOf(error));
    }
    await queries.invalidateQueries({ queryKey: ['people', id] });
  };

  return (
    <div className="relative h-full overflow-y-auto">
      <div className="mx-auto max-w-[860px] px-10 pb-16 pt-7 max-sm:px-5">
        <p className="text-quiet">{t`Group`}</p>
        <h1 className="border-b border-base-300 pb-4 text-[30px] leading-tight">{space.name}</h1>
        <p role="alert" className="min-h-5 pt-2 text-error">
          {problem}
        </p>
        <ul>
          {people.map((member) => (
            <li key={member.id} className="flex items-center gap-4 border-b border-base-300 py-4" data-testid="member">
              <Avatar name={member.name} colour={member.colour} size={40} />
              <div className="grow">
                <p className="font-title text-[18px]">
                  {member.name}
                  {member.id === person.id && <span className="ms-2 font-sans text-[13px] text-quiet">{t`you`}</span>}
                </p>
                <p className="text-[13px] text-quiet">{roleWords[member.role]}</p>
              </div>
              {space.role === 'owner' ? (
                <select
                  aria-label={t`Role of ${member.name}`}
                  className="select h-10 w-32 border-base-300 bg-base-100"
                  value={member.role}
                  onChange={(event) => void setRole(member.id, event.target.value)}
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
            </li>
          ))}
        </ul>
        <h2 className="mt-10 border-b border-base-300 pb-2 text-[20px]">{t`How much it is`}</h2>
        <p className="pb-3 pt-2 text-quiet">{t`What this library holds on the server, and what it may hold.`}</p>
        <Usage space={id} />
        <h2 className="mt-10 border-b border-base-300 pb-2 text-[20px]">{t`Terms`}</h2>
        <p className="pt-2 text-quiet">{t`Lenses that ask for “this term” go by these days.`}</p>
        <TermsField space={id} mayWrite={space.role !== 'reader'} />
      </div>
    </div>
  );
}
