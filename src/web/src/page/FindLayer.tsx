import { plural, t } from '@lingui/core/macro';
import { ArrowDownIcon, ArrowUpIcon, XIcon } from '@phosphor-icons/react';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { FoundWords } from '../core/findBridge';
import { sentenceOf } from '../core/runtime';
import type { Notebook } from '../data/useNotebook';
import { useWorkspace } from '../data/useWorkspace';
import { useSession } from '../server/session';
import type { SheetView } from '../sheet/blotter/sheetView';
import type { View } from '../sheet/ink/view';
import type { OpenDocument } from '../sync/openDocument';
import { Button, SignButton } from '../ui/Button';
import { Switch } from '../ui/Segments';
import { say } from '../ui/saying';
import { NotebookFind } from './NotebookFind';

interface FindLayerProps {
  page: OpenDocument;
  view: View;
  sheetView: SheetView | undefined;
  mayWrite: boolean;
  space: string;
  notebook: Notebook;
  onPage: (page: string) => void;
  onClose: () => void;
}

/** What was looked for last stays in hand from page to page. */
const nothing = { person: '', sought: '', exact: false, everywhere: false };
let kept = nothing;

/** Finds words in all that is typed on the page, shows where they stand, and puts others in their place. */
export function FindLayer(props: FindLayerProps) {
  const { page, view, sheetView, mayWrite, space, notebook, onPage, onClose } = props;
  const { core } = useWorkspace();
  const { person } = useSession();
  const [{ sought, exact, everywhere }, setAsked] = useState(() =>
    kept.person === person.id ? kept : (kept = { ...nothing, person: person.id }),
  );
  const ask = (change: Partial<typeof kept>) => setAsked((kept = { ...kept, ...change }));
  const [words, setWords] = useState('');
  const [at, setAt] = useState(0);
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => {
    field.current?.focus();
    field.current?.select();
  }, []);
  const version = page.getVersion();
  const found = useMemo(
    () => (sought.trim() ? (JSON.parse(core.FindBridge.Find(page.handle, sought, exact)) as FoundWords[]) : []),
    [core, page, sought, exact, version],
  );
  const here = Math.min(at, found.length - 1);
  const go = (to: number) => {
    if (found.length === 0) return;
    const next = (to + found.length) % found.length;
    setAt(next);
    sheetView?.show(found[next]!.area);
  };
  const replace = (which: number) => {
    try {
      page.performTogether((handle, now) => core.FindBridge.Replace(handle, sought, exact, words, which, now));
      if (which < 0)
        say(plural(found.length, { one: 'Other words stand in one place.', other: 'Other words stand in # places.' }));
    } catch (problem) {
      say(sentenceOf(problem));
    }
  };
  const { scale, x, y } = view;
  return (
    <>
      <svg aria-hidden="true" className="pointer-events-none absolute inset-0 size-full" data-testid="found-marks">
        {found.flatMap(({ corners }, i) =>
          corners.map((line, k) => (
            <polygon
              key={`${i} ${k}`}
              points={line.map((place, n) => place * scale + (n % 2 === 0 ? x : y)).join(' ')}
              fill={i === here ? '#b4533c' : '#e3b23c'}
              fillOpacity={i === here ? 0.34 : 0.3}
            />
          )),
        )}
      </svg>
      <section
        aria-label={t`Find words on this page`}
        data-testid="find-panel"
        className="absolute top-3 right-3 z-20 max-h-[calc(100%-24px)] w-[min(320px,calc(100%-24px))] overflow-y-auto rounded-lg border border-base-300 bg-base-100 p-3 shadow-md"
      >
        <div className="flex items-center gap-1">
          <input
            ref={field}
            type="text"
            aria-label={t`Words`}
            placeholder={t`Words on this page`}
            data-testid="find-words"
            className="input h-11 min-w-0 grow border-base-300 bg-base-100"
            value={sought}
            onChange={(event) => {
              ask({ sought: event.target.value });
              setAt(0);
            }}
            onKeyDown={(event) => {
              if (event.key === 'Enter') go(event.shiftKey ? here - 1 : here + 1);
              else if (event.key === 'Escape') onClose();
            }}
          />
          <SignButton label={t`The one before`} data-testid="find-before" onClick={() => go(here - 1)}>
            <ArrowUpIcon size={18} />
          </SignButton>
          <SignButton label={t`The next one`} data-testid="find-next" onClick={() => go(here + 1)}>
            <ArrowDownIcon size={18} />
          </SignButton>
          <SignButton label={t`Close`} data-testid="find-close" onClick={onClose}>
            <XIcon size={18} />
          </SignButton>
        </div>
        <p role="status" className="mt-1 text-[13px] text-quiet" data-testid="find-count">
          {!sought.trim()
            ? t`What is typed is found; what is written by hand is not read yet.`
            : found.length === 0
              ? t`Nothing here says so.`
              : t`${here + 1} of ${found.length}`}
        </p>
        {mayWrite && (
          <div className="mt-1.5 flex gap-1.5">
            <input
              aria-label={t`Words in its place`}
              placeholder={t`in its place`}
              data-testid="find-instead"
              className="input h-11 min-w-0 grow border-base-300 bg-base-100"
              value={words}
              onChange={(event) => setWords(event.target.value)}
              onKeyDown={(event) => event.key === 'Escape' && onClose()}
            />
            <Button
              className="px-2"
              disabled={found.length === 0}
              data-testid="replace-one"
              onClick={() => replace(here)}
            >
              {t`Replace`}
            </Button>
            <Button
              className="px-2"
              disabled={found.length === 0}
              data-testid="replace-all"
              onClick={() => replace(-1)}
            >
              {t`All`}
            </Button>
          </div>
        )}
        <Switch
          label={t`Capitals and accents count`}
          on={exact}
          testId="find-exact"
          onChange={(on) => ask({ exact: on })}
        />
        <Switch
          label={t`In the whole notebook`}
          on={everywhere}
          testId="find-everywhere"
          onChange={(on) => ask({ everywhere: on })}
        />
        {everywhere && (
          <NotebookFind
            space={space}
            notebook={notebook}
            here={{ page: page.id, places: found.length }}
            sought={{ words: sought, exact }}
            instead={words}
            mayWrite={mayWrite}
            onPage={onPage}
          />
        )}
      </section>
    </>
  );
}
