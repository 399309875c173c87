import { t } from '@lingui/core/macro';
import { useState } from 'react';
import { type Role, roleNames } from '../server/session';
import { copyText, say } from '../ui/saying';
import { Labelled, Radio, Tick } from '../ui/Labelled';
import { FormDialog, Problem } from '../ui/FormDialog';
import { Toggle } from '../ui/Button';
import { roleWords, useGroupActs } from './groups';

const usual = { uses: 12, days: 14 };

/** Invites into a group: with a link for several people, or one person by name or e-mail address. */
export function InviteDialog({ space, group, onClose }: { space: string; group: string; onClose: () => void }) {
  const { invite } = useGroupActs();
  const [way, setWay] = useState<'link' | 'person'>('link');
  const [role, setRole] = useState<Role>('writer');
  const [who, setWho] = useState('');
  const [uses, setUses] = useState(usual.uses);
  const [days, setDays] = useState(usual.days);
  const [asks, setAsks] = useState(false);
  const send = async () => {
    if (way === 'link') {
      const { link } = await invite(space, { role, uses, days, asks });
      if (link) copyText(link);
      return;
    }
    const { mailed } = await invite(space, { role, days, asks: false, who });
    say(
      mailed
        ? t`A letter is on its way. Whoever has an account here finds the invitation at their door as well.`
        : t`They find the invitation at their door. If they have no account yet, send them the link.`,
    );
  };
  return (
    <FormDialog
      title={t`Invite into “${group}”`}
      confirm={way === 'link' ? t`Make the link` : t`Invite`}
      disabled={way === 'person' && who.trim() === ''}
      onConfirm={send}
      onClose={onClose}
    >
      {(problem) => (
        <>
          <div className="mb-4 flex gap-1" role="group" aria-label={t`How`}>
            <Toggle on={way === 'link'} data-testid="invite-by-link" onClick={() => setWay('link')}>
              {t`With a link`}
            </Toggle>
            <Toggle on={way === 'person'} data-testid="invite-by-name" onClick={() => setWay('person')}>
              {t`One person`}
            </Toggle>
          </div>
          {way === 'person' ? (
            <Labelled label={t`Name or e-mail address`}>
              {(id) => (
                <input
                  id={id}
                  className="field"
                  value={who}
                  autoFocus
                  data-testid="invite-who"
                  onChange={(event) => setWho(event.target.value)}
                />
              )}
            </Labelled>
          ) : (
            <div className="grid grid-cols-2 gap-4">
              <Labelled label={t`For how many people`}>
                {(id) => <Count id={id} value={uses} most={1000} testId="invite-uses" onChange={setUses} />}
              </Labelled>
              <Labelled label={t`For how many days`}>
                {(id) => <Count id={id} value={days} most={365} testId="invite-days" onChange={setDays} />}
              </Labelled>
            </div>
          )}
          <fieldset className="mt-4">
            <legend className="mb-1 font-semibold">{t`What they may do`}</legend>
            {(['writer', 'reader'] as const).map((one) => (
              <Radio key={one} name="role" on={role === one} testId={`invite-${one}`} onChoose={() => setRole(one)}>
                {roleNames[one]}: {roleWords[one]}
              </Radio>
            ))}
          </fieldset>
          {way === 'link' && (
            <Tick on={asks} testId="invite-asks" onChange={setAsks}>{t`An owner answers before anybody is in`}</Tick>
          )}
          <Problem words={problem} testId="invite-problem" />
        </>
      )}
    </FormDialog>
  );
}

function Count({
  id,
  value,
  most,
  testId,
  onChange,
}: {
  id: string;
  value: number;
  most: number;
  testId: string;
  onChange: (value: number) => void;
}) {
  return (
    <input
      id={id}
      type="number"
      inputMode="numeric"
      min={1}
      max={most}
      required
      className="field"
      value={Number.isNaN(value) ? '' : value}
      data-testid={testId}
      onChange={(event) => onChange(event.target.valueAsNumber)}
    />
  );
}
