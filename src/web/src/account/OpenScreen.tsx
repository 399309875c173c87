import { plural, t } from '@lingui/core/macro';
import { DownloadSimpleIcon } from '@phosphor-icons/react';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { Door } from './Door';
import { needsPassphrase } from './ComeScreen';
import { sentenceOf } from '../core/runtime';
import { saveBlob } from '../model/saveBlob';
import { request, sendJson } from '../server/api';
import { Button } from '../ui/Button';
import { Field } from '../ui/Field';
import { Quill } from '../ui/Quill';

interface OpenPages {
  name: string;
  by: string;
  copies: boolean;
  /** Stands for the passphrase from now on. */
  ticket: string;
  pages: OpenPage[] | null;
}

interface OpenPage {
  id: string;
  number: number;
  title: string;
}

/** Pages that somebody shows to everybody: only to be looked at, without an account. */
export function OpenScreen() {
  const [secret] = useState(() => location.hash.slice(1));
  const [passphrase, setPassphrase] = useState('');
  const { data, error } = useQuery({
    queryKey: ['open', secret, passphrase],
    queryFn: () => sendJson<OpenPages>('POST', '/api/sharing/look', { secret, passphrase }),
    enabled: secret !== '',
    retry: false,
    staleTime: Infinity,
  });
  if (needsPassphrase(error))
    return (
      <Door
        title={t`Pages that are shown to you`}
        about={t`Give the passphrase that came with the address.`}
        submit={t`Look`}
        problem={passphrase ? sentenceOf(error) : ''}
        testId="passphrase-form"
        onSubmit={(text) => setPassphrase(text('passphrase'))}
      >
        <Field label={t`Passphrase`} name="passphrase" type="password" autoComplete="off" autoFocus />
      </Door>
    );
  if (!secret || error || (data && !data.pages))
    return (
      <Door
        title={t`This address leads nowhere`}
        about={error ? sentenceOf(error) : t`A part of it is missing: open the whole address that you were given.`}
        testId="open-nothing"
      />
    );
  if (!data) return <div className="h-full bg-desk" aria-busy="true" />;
  return <Shown secret={secret} pages={data.pages!} about={data} />;
}

function Shown({ secret, pages, about }: { secret: string; pages: OpenPage[]; about: OpenPages }) {
  const [problem, setProblem] = useState('');
  const save = async () => {
    try {
      const copy = await request(
        'POST',
        '/api/sharing/copy',
        JSON.stringify({ secret, ticket: about.ticket }),
        'application/json',
      );
      saveBlob(`${about.name}.pdf`, await copy.blob());
      setProblem('');
    } catch (failed) {
      setProblem(sentenceOf(failed));
    }
  };
  return (
    <div className="flex h-full flex-col bg-desk">
      <header className="flex min-h-14 shrink-0 flex-wrap items-center gap-x-4 gap-y-1 border-b border-base-300 bg-base-100 px-5 py-2">
        <Quill size={28} />
        <div className="min-w-0 grow">
          <h1 className="truncate text-[20px] leading-tight" data-testid="open-name">
            {about.name}
          </h1>
          <p className="text-[13px] text-quiet">
            {t`Shown by ${about.by}`} · {plural(pages.length, { one: '# page', other: '# pages' })}
          </p>
        </div>
        <span role="alert" className="text-error">
          {problem}
        </span>
        {about.copies && (
          <Button data-testid="save-copy" onClick={() => void save()}>
            <DownloadSimpleIcon size={18} weight="light" /> {t`Save a copy`}
          </Button>
        )}
      </header>
      <main className="min-h-0 grow overflow-y-auto px-4 py-6" aria-label={about.name}>
        {pages.map((page) => (
          <PageSeen key={page.id} secret={secret} ticket={about.ticket} page={page} />
        ))}
        {pages.length === 0 && <p className="p-10 text-center text-quiet">{t`There are no pages here yet.`}</p>}
      </main>
    </div>
  );
}

/** One page, fetched once it comes near. */
function PageSeen({ secret, ticket, page }: { secret: string; ticket: string; page: OpenPage }) {
  const place = useRef<HTMLElement>(null);
  const [isNear, setNear] = useState(false);
  useEffect(() => {
    const seeing = new IntersectionObserver((seen) => seen.some((one) => one.isIntersecting) && setNear(true), {
      rootMargin: '800px',
    });
    seeing.observe(place.current!);
    return () => seeing.disconnect();
  }, []);
  const { data: address, error } = useQuery({
    queryKey: ['open-page', secret, page.id],
    queryFn: async () => {
      const body = JSON.stringify({ secret, ticket, page: page.id });
      const svg = await request('POST', '/api/sharing/page', body, 'application/json');
      return URL.createObjectURL(await svg.blob());
    },
    enabled: isNear,
    retry: false,
    staleTime: Infinity,
    gcTime: Infinity,
  });
  const words = page.title ? t`Page ${page.number}: ${page.title}` : t`Page ${page.number}`;
  return (
    <figure ref={place} className="mx-auto mb-8 max-w-[900px]" data-testid="open-page">
      {address ? (
        <img src={address} alt={words} className="w-full border border-base-300 bg-paper" />
      ) : (
        <div className="aspect-[210/297] w-full border border-base-300 bg-paper" aria-busy={!error}>
          {error && <p className="p-6 text-error">{sentenceOf(error)}</p>}
        </div>
      )}
      <figcaption className="pt-2 text-center text-[13px] text-quiet">{words}</figcaption>
    </figure>
  );
}
