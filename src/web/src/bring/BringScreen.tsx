import { plural, t } from '@lingui/core/macro';
import { FilesIcon } from '@phosphor-icons/react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import { type BringBridge, type LaidSheet, type Laying, layings } from '../core/bringBridge';
import { sentenceOf } from '../core/runtime';
import { type Goal, makePages, takeOffered, type Told } from '../data/bringing';
import { doing } from '../data/doing';
import { useLibrary } from '../data/useLibrary';
import { useWorkspace } from '../data/useWorkspace';
import { defaultPaper, root } from '../model/items';
import { Protected } from '../printed/pdf';
import { Cancelled } from '../server/api';
import { Button, Toggle } from '../ui/Button';
import { Problem } from '../ui/FormDialog';
import { useDropped } from '../ui/useDropped';
import { sentenceTold } from '../words/sentences';
import { bringable, type BroughtFile, keepBrought, lookInto } from './files';
import { type Chosen, LeafFace, SheetCard } from './SheetCard';

const ways: { laying: Laying; words: string }[] = [
  { laying: 'whole', words: t`A page each` },
  { laying: 'below', words: t`Room above` },
  { laying: 'two', words: t`Two, lines beside` },
  { laying: 'four', words: t`Four, lines beside` },
  { laying: 'six', words: t`Six, lines beside` },
  { laying: 'together', words: t`All on one` },
];

/** Files whose pages come into a notebook: their sheets lie here as they will be, and are chosen and turned on themselves. */
export function BringScreen() {
  const { space = '', folder = root } = useParams();
  const [asked] = useSearchParams();
  const into = asked.get('notebook');
  const library = useLibrary(space);
  const workspace = useWorkspace();
  const { BringBridge, LibraryBridge } = workspace.core;
  const navigate = useNavigate();
  const [files, setFiles] = useState<BroughtFile[]>([]);
  const [left, setLeft] = useState<ReadonlySet<number>>(new Set());
  const [turns, setTurns] = useState<ReadonlyMap<number, number>>(new Map());
  const [laying, setLaying] = useState<Laying>('whole');
  const [name, setName] = useState('');
  const [range, setRange] = useState<string>();
  const [picked, setPicked] = useState<number>();
  const [locked, setLocked] = useState<{ file: File; wasWrong: boolean }[]>([]);
  const [reading, setReading] = useState(0);
  const [problem, setProblem] = useState('');
  const [making, setMaking] = useState<{ words: string; giveUp: AbortController }>();
  const chooser = useRef<HTMLInputElement>(null);
  const gone = useRef(new AbortController());

  const all = useMemo(() => leavesOf(files, turns), [files, turns]);
  const chosen = useMemo(() => all.filter(({ page }) => !left.has(page)), [all, left]);
  const sheets = useMemo(() => lay(BringBridge, chosen, files, laying), [BringBridge, chosen, files, laying]);

  const look = async (file: File, password?: string) => {
    setReading((now) => now + 1);
    try {
      const { signal } = gone.current;
      const read = await lookInto(file, password, signal);
      if (signal.aborted) return void read.pdf?.loadingTask.destroy();
      setFiles((now) => [...now, read]);
      setName((now) => now || titleOf(file.name).slice(0, 200));
    } catch (error) {
      if (error instanceof Cancelled) return;
      if (error instanceof Protected) setLocked((now) => [...now, { file, wasWrong: error.wasWrong }]);
      else setProblem(sentenceOf(error));
    } finally {
      setReading((now) => now - 1);
    }
  };
  const take = async (taken: readonly File[]) => {
    setProblem('');
    // One after the other, so that they lie in the order in which they were chosen.
    for (const file of taken) await look(file);
  };
  useEffect(() => {
    gone.current = new AbortController();
    void take(takeOffered());
    return () => gone.current.abort();
  }, []);
  const [screen, setScreen] = useState<HTMLElement | null>(null);
  const over = useDropped(screen, Boolean(library) && !making, (dropped) => void take(dropped));
  const shown = useRef(files);
  shown.current = files;
  useEffect(() => () => shown.current.forEach(({ pdf }) => void pdf?.loadingTask.destroy()), []);

  if (!library) return <p className="p-10">{t`There is nothing here that you may see.`}</p>;
  const notebook = into ? library.find(into) : undefined;
  const nameProblem = into ? '' : sentenceTold(LibraryBridge.NameProblem(name));
  const written = range ?? (all.length > 0 ? BringBridge.RangeOf(chosen.map(({ page }) => page)) : '');
  const choose = (pages: ReadonlySet<number>) => {
    setLeft(new Set(all.map(({ page }) => page).filter((page) => !pages.has(page))));
    setRange(undefined);
    setPicked(undefined);
  };
  const takeRange = () => {
    if (range === undefined) return;
    try {
      choose(new Set(BringBridge.Range(range, all.length)));
      setProblem('');
    } catch (error) {
      setProblem(sentenceOf(error));
    }
  };

  const make = async () => {
    setProblem('');
    const giveUp = new AbortController();
    const tell = (words: string) => setMaking({ words, giveUp });
    try {
      const assets = new Map<BroughtFile, string>();
      for (const file of files) {
        if (!chosen.some((leaf) => leaf.file === file)) continue;
        tell(t`Keeping “${file.name}”`);
        assets.set(file, await keepBrought(workspace, space, file));
        if (giveUp.signal.aborted) throw new Cancelled();
      }
      lay(BringBridge, chosen, files, laying, (file) => assets.get(file)!);
      const goal: Goal = into
        ? { space, notebook: into, parent: asked.get('parent') ?? root, after: asked.get('after') ?? '' }
        : { library, folder, name, look: { colour: 'sky', cover: 'rings', paper: defaultPaper } };
      const progress = ({ done, of }: Told) => tell(t`Making page ${done + 1} of ${of}`);
      const said = plural(sheets.length, { one: '# page was brought in.', other: '# pages were brought in.' });
      let path = '';
      await doing(workspace, said, async () => {
        path = await makePages(workspace, goal, progress, giveUp.signal);
      });
      await navigate(path, { replace: true });
    } catch (error) {
      setMaking(undefined);
      setProblem(error instanceof Cancelled ? t`Given up. Nothing was made.` : sentenceOf(error));
    }
  };

  const labelled = sheets.some(({ begins }) => begins.length > 0);
  const aside = all.filter(({ page }) => left.has(page));
  return (
    <form
      ref={setScreen}
      className="flex h-full flex-col"
      data-testid="bring"
      onSubmit={(event) => {
        event.preventDefault();
        void make();
      }}
    >
      <header className="px-10 pt-6 max-sm:px-4">
        <div className="flex flex-wrap items-end gap-2 border-b border-base-300 pb-3">
          <h1 className="grow text-[30px] leading-tight max-sm:text-[24px]">
            {notebook ? t`Bring into “${notebook.name}”` : t`Bring in`}
          </h1>
          {files.length > 0 && (
            <Button onClick={() => chooser.current!.click()} disabled={Boolean(making)}>{t`More files`}</Button>
          )}
          <Button onClick={() => void navigate(-1)}>{t`Cancel`}</Button>
          {files.length > 0 && (
            <Button
              look="primary"
              type="submit"
              data-testid="bring-in"
              disabled={sheets.length === 0 || Boolean(nameProblem) || Boolean(making) || reading > 0}
            >
              {plural(sheets.length, { one: 'Bring in # page', other: 'Bring in # pages' })}
            </Button>
          )}
        </div>
        {files.length > 0 && (
          <div className="flex flex-wrap items-end gap-x-6 gap-y-2 py-3">
            {!into && (
              <label className="w-64 max-sm:w-auto max-sm:grow">
                <span className="mb-1 block font-semibold">{t`New notebook`}</span>
                <input
                  className="field"
                  value={name}
                  aria-invalid={Boolean(nameProblem)}
                  data-testid="bring-name"
                  onChange={(event) => setName(event.target.value)}
                />
              </label>
            )}
            <label className="w-40 max-sm:w-28">
              <span className="mb-1 block font-semibold">{t`Pages`}</span>
              <input
                className="field"
                value={written}
                data-testid="bring-range"
                onChange={(event) => setRange(event.target.value)}
                onBlur={takeRange}
                onKeyDown={(event) => {
                  if (event.key !== 'Enter') return;
                  event.preventDefault();
                  takeRange();
                }}
              />
            </label>
            <fieldset className="min-w-0">
              <legend className="mb-1 font-semibold">{t`On a sheet`}</legend>
              <div className="flex flex-wrap gap-1.5">
                {ways.map(({ laying: one, words }) => (
                  <Toggle
                    key={one}
                    on={laying === one}
                    data-testid={`lay-${one}`}
                    className="px-3"
                    onClick={() => (setLaying(one), setPicked(undefined))}
                  >
                    {words}
                  </Toggle>
                ))}
              </div>
            </fieldset>
          </div>
        )}
        {(problem || (files.length > 0 && nameProblem)) && (
          <Problem words={problem || nameProblem} testId="bring-problem" />
        )}
        {locked.map((one) => (
          <Password
            key={one.file.name}
            {...one}
            onOpen={(password) => {
              setLocked((now) => now.filter((other) => other !== one));
              void look(one.file, password);
            }}
          />
        ))}
        {making && (
          <p role="status" className="flex items-center gap-3 pb-2" data-testid="bring-progress">
            <span className="loading loading-spinner loading-sm" /> {making.words}
            <Button onClick={() => making.giveUp.abort()}>{t`Give up`}</Button>
          </p>
        )}
      </header>
      <div
        className={`min-h-0 grow overflow-y-auto bg-desk px-10 py-6 max-sm:px-4 ${over ? 'outline-3 -outline-offset-3 outline-primary' : ''}`}
        inert={Boolean(making)}
      >
        {reading > 0 && (
          <p role="status" className="mb-4 flex items-center gap-3 text-quiet" data-testid="bring-reading">
            <span className="loading loading-spinner loading-sm" /> {t`Looking at the pages`}
          </p>
        )}
        {files.length === 0 && reading === 0 && (
          <div className="grid h-full place-items-center">
            <div className="grid max-w-md justify-items-center gap-4 text-center">
              <FilesIcon size={56} weight="thin" className="text-quiet" />
              <p>{t`Lay slides, worksheets and pictures here: PDF files and photographs, several at once. Their pages become pages that are written on.`}</p>
              <Button look="primary" data-testid="choose-files" onClick={() => chooser.current!.click()}>
                {t`Choose files`}
              </Button>
            </div>
          </div>
        )}
        <ul className="grid grid-cols-[repeat(auto-fill,minmax(212px,1fr))] gap-x-4 gap-y-3">
          {sheets.map((sheet, index) => {
            const leaves = chosen.slice(sheet.first, sheet.first + sheet.leaves.length);
            return (
              <SheetCard
                key={leaves[0]!.page}
                sheet={sheet}
                index={index}
                labelled={labelled}
                leaves={leaves}
                picked={leaves.some(({ page }) => page === picked) ? picked : undefined}
                onPick={setPicked}
                onTurn={(page) => setTurns((now) => new Map(now).set(page, ((now.get(page) ?? 0) + 1) % 4))}
                onLeave={(page) => (
                  setLeft((now) => new Set([...now, page])),
                  setPicked(undefined),
                  setRange(undefined)
                )}
              />
            );
          })}
        </ul>
        {aside.length > 0 && (
          <section aria-label={t`Left out`} className="mt-8 border-t border-base-300 pt-3">
            <h2 className="mb-2 text-[19px]">{t`Left out`}</h2>
            <ul className="flex flex-wrap gap-2">
              {aside.map((leaf) => {
                const width = asideHeight * ratioOf(leaf);
                return (
                  <li key={leaf.page}>
                    <button
                      type="button"
                      aria-label={t`Take page ${leaf.page} in again`}
                      data-testid="take-leaf"
                      className="relative overflow-hidden opacity-60 hover:opacity-100"
                      style={{ width, height: asideHeight }}
                      onClick={() => (
                        setLeft((now) => new Set([...now].filter((page) => page !== leaf.page))),
                        setRange(undefined)
                      )}
                    >
                      <LeafFace leaf={leaf} width={width} height={asideHeight} />
                      <span className="absolute bottom-0 end-0 bg-base-100 px-1 text-[12px]">{leaf.page}</span>
                    </button>
                  </li>
                );
              })}
            </ul>
          </section>
        )}
      </div>
      <input
        ref={chooser}
        type="file"
        multiple
        accept={bringable}
        hidden
        data-testid="bring-files"
        onChange={(event) => {
          void take([...(event.target.files ?? [])]);
          event.target.value = '';
        }}
      />
    </form>
  );
}

/** A file's name without its ending. */
const titleOf = (name: string): string => name.replace(/\.[^.]+$/, '');

/** So high are leaves that were left out, pixels. */
const asideHeight = 72;

/** How wide a leaf is as it is turned, as a share of its height; never too narrow to be pressed. */
function ratioOf({ width, height, turn }: Chosen): number {
  const ratio = turn % 2 === 0 ? width / height : height / width;
  return Math.min(3, Math.max(0.62, ratio || 1));
}

/** All leaves of some files, one after the other. */
function leavesOf(files: readonly BroughtFile[], turns: ReadonlyMap<number, number>): Chosen[] {
  let page = 0;
  return files.flatMap((file) =>
    file.leaves.map((leaf) => ({ ...leaf, page: ++page, file, turn: turns.get(page) ?? 0 })),
  );
}

/** Has Core lay leaves on sheets. What stands for files that are not kept yet does not matter to how they lie. */
function lay(
  bridge: BringBridge,
  chosen: readonly Chosen[],
  files: readonly BroughtFile[],
  laying: Laying,
  assetOf: (file: BroughtFile) => string = () => root,
): LaidSheet[] {
  const marks = bookmarksIn(chosen, files);
  return JSON.parse(
    bridge.Lay(
      chosen.map(({ file }) => assetOf(file)),
      chosen.flatMap(({ number, width, height, turn }) => [number, width, height, turn]),
      layings[laying],
      marks.map(({ level }) => level),
      marks.map(({ title }) => title),
      marks.map(({ leaf }) => leaf),
    ),
  ) as LaidSheet[];
}

/** The bookmarks of all files by the leaves that were chosen; of several files each is a chapter of its own. */
function bookmarksIn(chosen: readonly Chosen[], files: readonly BroughtFile[]) {
  const several = files.length > 1 && files.some(({ leaves }) => leaves.length > 1);
  return files.flatMap((file) => {
    const first = chosen.findIndex((leaf) => leaf.file === file);
    if (first < 0) return [];
    const own = chosen.filter((leaf) => leaf.file === file);
    const title = titleOf(file.name);
    const inside = file.bookmarks.flatMap(({ level, title: called, leaf }) => {
      // To the first of its pages that came along.
      const at = own.findIndex(({ number }) => number > leaf);
      return at < 0 ? [] : [{ level: several ? level + 1 : level, title: called, leaf: first + at }];
    });
    return several ? [{ level: 0, title, leaf: first }, ...inside] : inside;
  });
}

function Password({ file, wasWrong, onOpen }: { file: File; wasWrong: boolean; onOpen: (password: string) => void }) {
  const [password, setPassword] = useState('');
  return (
    <div className="flex flex-wrap items-end gap-2 pb-3">
      <label className="w-64">
        <span className="mb-1 block font-semibold">{t`Password of “${file.name}”`}</span>
        <input
          type="password"
          autoComplete="off"
          className="field"
          value={password}
          data-testid="file-password"
          onChange={(event) => setPassword(event.target.value)}
          onKeyDown={(event) => {
            if (event.key !== 'Enter') return;
            event.preventDefault();
            onOpen(password);
          }}
        />
      </label>
      <Button data-testid="open-file" disabled={!password} onClick={() => onOpen(password)}>{t`Open it`}</Button>
      {wasWrong && <p role="alert" className="text-error">{t`That is not the password of this file.`}</p>}
    </div>
  );
}
