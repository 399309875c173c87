import { plural, t } from '@lingui/core/macro';
import { LinkIcon, QrCodeIcon, XIcon } from '@phosphor-icons/react';
import { useState } from 'react';
import { sentenceOf } from '../core/runtime';
import { dateWords } from '../model/time';
import { roleNames } from '../server/session';
import { Button, SignButton } from '../ui/Button';
import { Dialog } from '../ui/Dialog';
import { copyText, say } from '../ui/saying';
import { SquareCode } from '../ui/SquareCode';
import { type Invitation, useGroupActs, useInvitations } from './groups';

/** The invitations of a group, each a folded card with its words, its day and its code. */
export function Invitations({ space, group }: { space: string; group: string }) {
  const invitations = useInvitations(space);
  const { takeBack } = useGroupActs();
  const [shown, setShown] = useState<Invitation>();
  if (!invitations || invitations.length === 0) return null;
  return (
    <section aria-label={t`Invitations`}>
      <h2 className="mt-10 border-b border-base-300 pb-2 text-[20px]">{t`Invitations`}</h2>
      <ul className="mt-4 grid grid-cols-2 gap-x-8 gap-y-6 max-md:grid-cols-1">
        {invitations.map((one) => (
          <li
            key={one.id}
            data-testid="invitation-card"
            className={`border border-base-300 bg-paper ${one.state === 'open' ? '' : 'text-quiet'}`}
          >
            <div className="flex min-h-[92px] gap-3 border-b border-dashed border-base-300 p-3.5 pb-3">
              <div className="min-w-0 grow">
                <p className="font-title text-[17px] leading-snug">{titleOf(one)}</p>
                <p className="text-[13px] text-quiet">{aboutOf(one)}</p>
              </div>
              {one.modules && one.state === 'open' && (
                <button
                  type="button"
                  aria-label={t`Show the code large`}
                  title={t`Show the code large`}
                  data-testid="show-code"
                  className="size-16 shrink-0"
                  onClick={() => setShown(one)}
                >
                  <SquareCode modules={one.modules} label={t`The link as a square code`} className="size-full" />
                </button>
              )}
            </div>
            <div className="flex items-center gap-2 px-3.5 py-2">
              {one.link && one.state === 'open' && (
                <>
                  <Button data-testid="copy-invitation" data-link={one.link} onClick={() => copyText(one.link!)}>
                    <LinkIcon size={18} weight="light" /> {t`Copy the link`}
                  </Button>
                  <SignButton label={t`Show the code large`} onClick={() => setShown(one)}>
                    <QrCodeIcon size={20} weight="light" />
                  </SignButton>
                </>
              )}
              <span className="grow" />
              <SignButton
                label={t`Take the invitation back`}
                data-testid="take-back-invitation"
                onClick={() =>
                  void takeBack(space, one.id).then(
                    () => say(t`The invitation is taken back.`),
                    (problem: unknown) => say(sentenceOf(problem)),
                  )
                }
              >
                <XIcon size={18} />
              </SignButton>
            </div>
          </li>
        ))}
      </ul>
      {shown?.modules && shown.link && (
        <Dialog title={t`Come into “${group}”`} onClose={() => setShown(undefined)} wide>
          <div className="grid place-items-center gap-4 pb-2" data-testid="large-code">
            <SquareCode
              modules={shown.modules}
              label={t`The link as a square code`}
              className="size-[min(62vh,80vw)]"
            />
            <p className="max-w-full break-all text-center text-[17px]">{shown.link}</p>
          </div>
        </Dialog>
      )}
    </section>
  );
}

const letterWords = {
  'on-its-way': t`the letter is on its way`,
  waiting: t`the letter waits for the mail server`,
  failed: t`the letter could not be sent: send the link yourself`,
};

function titleOf({ for: person, email, mostUses, role }: Invitation): string {
  if (person) return t`For ${person}`;
  if (email) return t`For ${email}`;
  return role === 'writer'
    ? plural(mostUses, { one: 'For one writer', other: 'For # writers' })
    : plural(mostUses, { one: 'For one reader', other: 'For # readers' });
}

function aboutOf({ for: person, email, letter, role, uses, mostUses, until, state, asks }: Invitation): string {
  const day = dateWords(new Date(until));
  const parts = [
    person || email ? roleNames[role] : '',
    letter ? letterWords[letter] : '',
    state === 'over' ? t`its last day was ${day}` : t`until ${day}`,
    state === 'used-up' && mostUses > 1 ? t`used up` : '',
    uses > 0 ? plural(uses, { one: 'one came', other: '# came' }) : '',
    asks ? t`an owner answers first` : '',
  ];
  return parts.filter(Boolean).join(' · ');
}
