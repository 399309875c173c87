import { t } from '@lingui/core/macro';
import { useState } from 'react';
import { Link } from 'react-router';
import { useSession } from '../server/session';
import { Button, Toggle } from '../ui/Button';
import { Labelled, Radio, Tick } from '../ui/Labelled';
import { Dialog } from '../ui/Dialog';
import { FormDialog, Problem } from '../ui/FormDialog';
import { copyText, say } from '../ui/saying';
import { SquareCode } from '../ui/SquareCode';
import { useShareActs, useShares, withWords, type With } from './shares';

/** What is to be shared. */
export interface Thing {
  node: string;
  name: string;
  isFolder: boolean;
  /** A page of it, which alone may be shown to everybody. */
  page?: string;
}

/** Shares a folder or notebook with a person, a group, or by a link, or shows a notebook or a page to everybody. */
export function ShareDialog({ space, thing, onClose }: { space: string; thing: Thing; onClose: () => void }) {
  const { spaces } = useSession();
  const groups = spaces.filter((one) => !one.personal && one.id !== space);
  const { share } = useShareActs();
  const there = (useShares(space) ?? []).filter((one) => one.node === thing.node);
  const [way, setWay] = useState<With>(thing.page ? 'everybody' : 'person');
  const [who, setWho] = useState('');
  const [group, setGroup] = useState(groups[0]?.id ?? '');
  const [writes, setWrites] = useState(false);
  const [days, setDays] = useState('');
  const [passphrase, setPassphrase] = useState('');
  const [copies, setCopies] = useState(false);
  const [onlyPage, setOnlyPage] = useState(thing.page !== undefined);
  const [made, setMade] = useState('');
  if (made) return <MadeLink space={space} id={made} name={thing.name} onClose={onClose} />;

  const byLink = way === 'link' || way === 'everybody';
  const send = async () => {
    const { id, link, mailed } = await share(space, {
      node: thing.node,
      ...(way === 'everybody' && thing.page && onlyPage ? { page: thing.page } : {}),
      with: way,
      ...(way === 'person' ? { who } : {}),
      ...(way === 'group' ? { group } : {}),
      writes: writes && way !== 'everybody',
      days: Number(days) || 0,
      ...(byLink && passphrase ? { passphrase } : {}),
      copies: copies && way === 'everybody',
    });
    if (mailed) say(t`A letter with a link is on its way.`);
    else if (link) {
      setMade(id);
      return 'stay' as const;
    } else say(t`“${thing.name}” is shared.`);
    return undefined;
  };
  const ways: [With, string][] = [
    ['person', t`A person`],
    ...(groups.length > 0 ? ([['group', t`A group`]] as [With, string][]) : []),
    ['link', t`A link`],
    ...(thing.isFolder ? [] : ([['everybody', t`Everybody`]] as [With, string][])),
  ];
  return (
    <FormDialog
      title={t`Share “${thing.name}”`}
      confirm={way === 'link' ? t`Make the link` : way === 'everybody' ? t`Make the address` : t`Share`}
      disabled={way === 'person' && who.trim() === ''}
      onConfirm={send}
      onClose={onClose}
    >
      {(problem) => (
        <>
          <div className="mb-4 flex flex-wrap gap-1" role="group" aria-label={t`With whom`}>
            {ways.map(([one, words]) => (
              <Toggle key={one} on={way === one} data-testid={`share-${one}`} onClick={() => setWay(one)}>
                {words}
              </Toggle>
            ))}
          </div>
          {way === 'person' && (
            <Labelled label={t`Name or e-mail address`}>
              {(id) => (
                <input
                  id={id}
                  className="field"
                  value={who}
                  autoFocus
                  data-testid="share-who"
                  onChange={(event) => setWho(event.target.value)}
                />
              )}
            </Labelled>
          )}
          {way === 'group' && (
            <Labelled label={t`Group`}>
              {(id) => (
                <select
                  id={id}
                  className="select h-11 w-full border-base-300 bg-base-100"
                  value={group}
                  data-testid="share-which-group"
                  onChange={(event) => setGroup(event.target.value)}
                >
                  {groups.map((one) => (
                    <option key={one.id} value={one.id}>
                      {one.name}
                    </option>
                  ))}
                </select>
              )}
            </Labelled>
          )}
          {byLink && (
            <p className="mb-4 text-quiet">
              {way === 'link'
                ? t`Whoever opens the link signs in, or makes an account, and has it from then on.`
                : t`Whoever opens the address sees the pages, without an account, and nothing else.`}
            </p>
          )}
          {way === 'everybody' && thing.page && (
            <Tick
              on={onlyPage}
              testId="share-only-page"
              onChange={setOnlyPage}
            >{t`This page alone, not the whole notebook`}</Tick>
          )}
          {way === 'everybody' && (
            <Tick on={copies} testId="share-copies" onChange={setCopies}>{t`They may save the pages as a file`}</Tick>
          )}
          {way !== 'everybody' && (
            <fieldset className="mt-4">
              <legend className="mb-1 font-semibold">{t`What they may do`}</legend>
              {[false, true].map((one) => (
                <Radio
                  key={String(one)}
                  name="writes"
                  on={writes === one}
                  testId={one ? 'share-writes' : 'share-reads'}
                  onChoose={() => setWrites(one)}
                >
                  {one ? t`Read, write on its pages and add new ones` : t`Read`}
                </Radio>
              ))}
            </fieldset>
          )}
          <div className={`mt-3 grid gap-4 ${byLink ? 'grid-cols-2 max-sm:grid-cols-1' : ''}`}>
            <Labelled label={t`For how many days`}>
              {(id) => (
                <input
                  id={id}
                  type="number"
                  inputMode="numeric"
                  min={1}
                  max={365}
                  className="field"
                  placeholder={t`until you take it back`}
                  value={days}
                  data-testid="share-days"
                  onChange={(event) => setDays(event.target.value)}
                />
              )}
            </Labelled>
            {byLink && (
              <Labelled label={t`Passphrase, if you like`}>
                {(id) => (
                  <input
                    id={id}
                    className="field"
                    minLength={6}
                    maxLength={200}
                    autoComplete="off"
                    value={passphrase}
                    data-testid="share-passphrase"
                    onChange={(event) => setPassphrase(event.target.value)}
                  />
                )}
              </Labelled>
            )}
          </div>
          {there.length > 0 && (
            <p className="mt-4 text-quiet" data-testid="shared-already">
              {t`Shared already with: ${there.map(withWords).join(', ')}.`}{' '}
              <Link to="/library/list/given" className="text-primary underline underline-offset-4" onClick={onClose}>
                {t`Look, or take it back`}
              </Link>
            </p>
          )}
          <Problem words={problem} testId="share-problem" />
        </>
      )}
    </FormDialog>
  );
}

/** A link that was made, to be given on: as words and as a code. */
export function MadeLink({
  space,
  id,
  name,
  onClose,
}: {
  space: string;
  id: string;
  name: string;
  onClose: () => void;
}) {
  const made = useShares(space)?.find((one) => one.id === id);
  return (
    <Dialog
      title={made?.with === 'everybody' ? t`The address of “${name}”` : t`The link to “${name}”`}
      onClose={onClose}
    >
      {made?.link && (
        <div className="grid justify-items-center gap-4 pb-2">
          {made.modules && (
            <SquareCode modules={made.modules} label={t`The link as a square code`} className="size-[min(46vh,72vw)]" />
          )}
          <p className="max-w-full break-all text-center" data-testid="made-link">
            {made.link}
          </p>
          <Button
            look="primary"
            data-testid="copy-made-link"
            onClick={() => copyText(made.link!)}
          >{t`Copy the link`}</Button>
        </div>
      )}
      {made && !made.link && (
        <p>{t`This server cannot show the link any more. It goes on being good until you take it back.`}</p>
      )}
    </Dialog>
  );
}
