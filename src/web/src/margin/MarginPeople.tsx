import { plural, t } from '@lingui/core/macro';
import { EyeIcon, EyeSlashIcon } from '@phosphor-icons/react';
import { useEffect, useMemo, useState } from 'react';
import type { OpenNotebook } from '../data/openNotebooks';
import { useWriters } from '../data/usePeople';
import { useDocument, useWorkspace } from '../data/useWorkspace';
import { hexOf } from '../model/colours';
import { whenWords } from '../model/time';
import type { OpenDocument } from '../sync/openDocument';
import { Avatar } from '../ui/Avatar';
import { SignButton } from '../ui/Button';
import { Switch } from '../ui/Segments';

/** Somebody who wrote on the page, and how much of it. */
interface Wrote {
  person: string;
  things: number;
  to: number;
}

/** Who wrote what on the page: each person's ink in their colour, or left out. As long as this is open; nothing on the page changes. */
export function MarginPeople({ at }: { at: OpenNotebook }) {
  const document = useDocument(at.space, 'page', at.page);
  return document && !document.isHeld ? <People at={at} page={document} key={document.address} /> : null;
}

function People({ at, page }: { at: OpenNotebook; page: OpenDocument }) {
  const { core } = useWorkspace();
  const [isTinted, setTinted] = useState(() => localStorage.getItem(tintKey) !== '0');
  const [hidden, setHidden] = useState<string[]>([]);
  const version = page.getVersion();
  const wrote = useMemo(
    () => JSON.parse(core.PageBridge.Writers(page.handle)) as Wrote[],
    // Looking at it in another way makes it a new version too, and the same people.
    [core, page, version],
  );
  const ids = wrote.map(({ person }) => person).join();
  const people = useWriters(at.space, at.notebook, ids ? ids.split(',') : none);
  const colourOf = (id: string) => hexOf[people.find((one) => one.id === id)?.colour ?? ''] ?? hexOf.spruce!;
  const tints = isTinted && ids ? ids.split(',').map((id) => [id, parseInt(colourOf(id).slice(1), 16)] as const) : [];
  const wish = JSON.stringify([tints, hidden]);
  useEffect(() => {
    const [tints, hidden] = JSON.parse(wish) as [[string, number][], string[]];
    page.look('tint', tints.length + hidden.length > 0, (handle) =>
      core.PageBridge.Tint(
        handle,
        tints.map(([person]) => person),
        tints.map(([, colour]) => colour),
        hidden,
      ),
    );
  }, [core, page, wish]);
  useEffect(() => () => page.look('tint', false, (handle) => core.PageBridge.Tint(handle, [], [], [])), [core, page]);
  const tint = (on: boolean) => {
    localStorage.setItem(tintKey, on ? '1' : '0');
    setTinted(on);
  };
  return (
    <div className="min-h-0 grow overflow-y-auto p-3" data-testid="margin-people-list">
      <Switch label={t`Ink in each person’s colour`} on={isTinted} onChange={tint} testId="tint-people" />
      {wrote.length === 0 && <p className="py-2 text-quiet">{t`Nobody has written on this page yet.`}</p>}
      <ul>
        {wrote.map(({ person, things, to }) => {
          const known = people.find((one) => one.id === person);
          const name = known?.name ?? t`Somebody`;
          const isHidden = hidden.includes(person);
          return (
            <li
              key={person}
              className="flex items-center gap-2.5 border-b border-base-300 py-2"
              data-testid="wrote-here"
            >
              <span
                aria-hidden="true"
                className="h-9 w-1 shrink-0 rounded-sm"
                style={{ background: isTinted ? colourOf(person) : 'transparent' }}
              />
              <Avatar name={name} colour={known?.colour ?? 'spruce'} size={30} />
              <div className={`min-w-0 grow ${isHidden ? 'opacity-60' : ''}`}>
                <p className="truncate">{name}</p>
                <p className="truncate text-[13px] text-quiet">
                  {plural(things, { one: '# line', other: '# lines' })} · {whenWords(to)}
                </p>
              </div>
              <SignButton
                label={isHidden ? t`Show what ${name} wrote` : t`Hide what ${name} wrote`}
                aria-pressed={isHidden}
                data-testid="hide-person"
                onClick={() => setHidden(isHidden ? hidden.filter((one) => one !== person) : [...hidden, person])}
              >
                {isHidden ? <EyeSlashIcon size={20} weight="light" /> : <EyeIcon size={20} weight="light" />}
              </SignButton>
            </li>
          );
        })}
      </ul>
    </div>
  );
}

const tintKey = 'quill.tint-people';
const none: string[] = [];
