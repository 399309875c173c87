import { plural, t } from '@lingui/core/macro';
import { useEffect, useRef, useState } from 'react';
import { sentenceOf } from '../core/runtime';
import { findInNotebook, type OnePage, replaceInNotebook, type Sought } from '../data/findInNotebook';
import type { Notebook } from '../data/useNotebook';
import { useWorkspace } from '../data/useWorkspace';
import { Button } from '../ui/Button';
import { say } from '../ui/saying';

/** Whoever types on does not have every letter looked for, ms. */
const restBefore = 350;
/** So many pages are listed. */
const mostListed = 200;

interface NotebookFindProps {
  space: string;
  notebook: Notebook;
  /** The page that is open, on which it is known at once. */
  here: OnePage;
  sought: Sought;
  /** What is to stand in their place. */
  instead: string;
  mayWrite: boolean;
  onPage: (page: string) => void;
}

/** What was found last: going from page to page one does not look again. */
let last: { key: string; found: OnePage[]; looked: number } | undefined;

/** The pages of the notebook on which words stand, and what puts others in their place on all of them. */
export function NotebookFind({ space, notebook, here, sought, instead, mayWrite, onPage }: NotebookFindProps) {
  const workspace = useWorkspace();
  const key = JSON.stringify([notebook.id, sought]);
  const known = last?.key === key ? last : undefined;
  const [hits, setFound] = useState<OnePage[]>(known?.found ?? []);
  const [looked, setLooked] = useState(known?.looked ?? 0);
  const found = hits.map((one) => (one.page === here.page ? here : one)).filter((one) => one.places > 0);
  const [busy, setBusy] = useState(false);
  const work = useRef<AbortController>(undefined);
  const { words, exact } = sought;
  const pages = notebook.pages.filter((one) => !one.inBin).map((one) => one.id);

  const start = (): AbortController => {
    work.current?.abort();
    work.current = new AbortController();
    setFound([]);
    setLooked(0);
    return work.current;
  };
  const look = async (control: AbortController) => {
    setBusy(true);
    const hits: OnePage[] = [];
    let seen = 0;
    for await (const one of findInNotebook(workspace, space, pages, { words, exact }, control.signal)) {
      if (control.signal.aborted) return;
      setLooked(++seen);
      if (one.places === 0) continue;
      hits.push(one);
      setFound([...hits]);
    }
    if (control.signal.aborted) return;
    last = { key, found: hits, looked: seen };
    setBusy(false);
  };
  useEffect(() => {
    if (last?.key === key) return undefined;
    const control = start();
    if (!words.trim()) return undefined;
    const timer = setTimeout(() => void look(control), restBefore);
    return () => {
      clearTimeout(timer);
      control.abort();
    };
  }, [words, exact]);

  const replaceAll = async () => {
    last = undefined;
    const control = start();
    setBusy(true);
    let [places, on, seen] = [0, 0, 0];
    try {
      for await (const one of replaceInNotebook(workspace, space, pages, { words, exact }, instead, control.signal)) {
        setLooked(++seen);
        places += one.places;
        if (one.places > 0) on++;
      }
    } catch (problem) {
      say(sentenceOf(problem));
    }
    setBusy(false);
    const inPlaces = plural(places, { one: 'in one place', other: 'in # places' });
    const onPages = plural(on, { one: 'on one page', other: 'on # pages' });
    say(t`Other words stand ${inPlaces} ${onPages}. Each page takes that back by itself.`);
  };
  const places = found.reduce((sum, one) => sum + one.places, 0);
  if (!words.trim()) return null;
  return (
    <div data-testid="notebook-find">
      <p role="status" className="mt-1 text-[13px] text-quiet" data-testid="notebook-find-count">
        {busy
          ? t`${looked} of ${pages.length} pages were looked at …`
          : places === 0
            ? t`Nothing typed in this notebook says so.`
            : `${plural(places, { one: 'One place', other: '# places' })}, ${plural(found.length, { one: 'one page', other: '# pages' })}`}
      </p>
      {busy && (
        <Button
          className="mt-1 px-2"
          data-testid="notebook-find-stop"
          onClick={() => (work.current?.abort(), setBusy(false))}
        >
          {t`Stop`}
        </Button>
      )}
      <ul className="mt-1 max-h-56 overflow-y-auto">
        {found.slice(0, mostListed).map((one) => {
          const entry = notebook.find(one.page);
          return (
            <li key={one.page}>
              <button
                type="button"
                data-testid="notebook-found"
                aria-current={one.page === here.page ? 'page' : undefined}
                className="flex min-h-11 w-full items-center gap-2 rounded-md px-2 text-start hover:bg-base-200 aria-[current]:bg-base-200"
                onClick={() => onPage(one.page)}
              >
                <span className="min-w-0 grow truncate">
                  {entry?.title ? t`${entry.number}, ${entry.title}` : t`page ${entry?.number ?? ''}`}
                </span>
                <span className="text-[13px] text-quiet">
                  {plural(one.places, { one: 'one place', other: '# places' })}
                </span>
              </button>
            </li>
          );
        })}
      </ul>
      {mayWrite && found.length > 0 && !busy && (
        <Button className="mt-1.5 w-full px-2" data-testid="replace-everywhere" onClick={() => void replaceAll()}>
          {plural(found.length, {
            one: 'Replace all on this one page',
            other: 'Replace all on these # pages',
          })}
        </Button>
      )}
    </div>
  );
}
