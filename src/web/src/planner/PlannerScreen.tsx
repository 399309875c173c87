import { Button, Toggle } from '../ui/Button';
import { sentenceTold } from '../words/sentences';
import { plural, t } from '@lingui/core/macro';
import { type ReactNode, useMemo, useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { randomNumber, sentenceOf } from '../core/runtime';
import { NameField } from '../ui/naming';
import { colours, openPath, root } from '../model/items';
import { useLibrary } from '../data/useLibrary';
import { PaperPicture } from '../papers/PaperPicture';
import { Cancelled, Unreachable } from '../server/api';
import { usePersonal } from '../data/usePersonal';
import { useWorkspace } from '../data/useWorkspace';
import { Problem } from '../ui/FormDialog';
import { CalendarField, type CalendarSource } from '../calendar/CalendarField';
import { type Chosen, kinds, usual } from './choice';
import { KindList } from './KindList';
import { aboutCalendar, readCalendar } from '../calendar/readCalendar';

/** Makes a planner from two dates, and a calendar where one is at hand: the result is an ordinary notebook. */
export function PlannerScreen() {
  const { space = '', folder = root } = useParams();
  const library = useLibrary(space);
  const workspace = useWorkspace();
  const { core } = workspace;
  const navigate = useNavigate();
  const week = usePersonal()?.habits.week ?? 'monday';
  const [chosen, setChosen] = useState<Chosen>(() => usual(week));
  const [calendar, setCalendar] = useState<CalendarSource>({ address: '' });
  const [progress, setProgress] = useState<{ words: string; giveUp?: AbortController }>();
  const [problem, setProblem] = useState('');
  const nameProblem = sentenceTold(core.LibraryBridge.NameProblem(chosen.name));
  const settings = `${chosen.first}/${chosen.last} ${chosen.week} ${kinds
    .filter(({ kind }) => chosen.kinds.includes(kind))
    .map(({ kind }) => kind)
    .join()} ${chosen.language}`;
  const [counts, refused] = useMemo(() => {
    try {
      return [JSON.parse(core.PlannerBridge.Preview(settings)) as Record<string, number>, ''];
    } catch (error) {
      return [undefined, sentenceOf(error)];
    }
  }, [core, settings]);
  const languages = useMemo(
    () => JSON.parse(core.PlannerBridge.Languages()) as { code: string; name: string }[],
    [core],
  );
  const change = (changed: Partial<Chosen>) => setChosen({ ...chosen, ...changed });
  if (!library) return <p className="p-10">{t`There is nothing here that you may see.`}</p>;

  const make = async () => {
    setProblem('');
    const giveUp = new AbortController();
    try {
      const asks = calendar.file ?? calendar.address.trim();
      if (asks) setProgress({ words: t`Reading the calendar`, giveUp });
      const read = asks ? await readCalendar(calendar, chosen.first, chosen.last, giveUp.signal) : undefined;
      setProgress({ words: plural(counts!.pages ?? 0, { one: 'Laying out # page', other: 'Laying out # pages' }) });
      // The words are painted before the work begins.
      await new Promise((done) => setTimeout(done, 30));
      const notebook = library.emptyNotebook(folder, chosen.name, {
        colour: 'sky',
        cover: 'steps',
        paper: chosen.papers.notes,
      });
      const document = await workspace.acquire(space, 'notebook', notebook);
      await document.performAll((handle, now) =>
        core.PlannerBridge.Make(
          handle,
          notebook,
          settings,
          kinds.map(({ kind }) => chosen.papers[kind]),
          [...colours],
          randomNumber(),
          now,
        ),
      );
      if (read)
        await document.performAll((handle, now) =>
          core.PlannerBridge.TakeCalendar(
            handle,
            notebook,
            read.entries.map((entry) => entry.id),
            read.entries.map((entry) => entry.value),
            now,
          ),
        );
      workspace.release(space, 'notebook', notebook);
      if (calendar.address && !calendar.file)
        localStorage.setItem(`quill.calendar.${notebook}`, calendar.address.trim());
      const about = read ? aboutCalendar(read) : '';
      await navigate(openPath(space, notebook), about ? { state: { said: about.trim() } } : {});
    } catch (error) {
      setProgress(undefined);
      setProblem(
        error instanceof Cancelled
          ? t`Given up. Nothing was made.`
          : error instanceof Unreachable
            ? t`Reading a calendar needs a connection. Leave it out, or try again. Nothing was made.`
            : sentenceOf(error),
      );
    }
  };

  return (
    <form
      className="h-full overflow-y-auto px-10 pb-12 pt-6 max-sm:px-4"
      data-testid="planner"
      onSubmit={(event) => {
        event.preventDefault();
        void make();
      }}
    >
      <header className="flex flex-wrap items-end gap-2 border-b border-base-300 pb-3">
        <h1 className="grow text-[30px] leading-tight">{t`A planner`}</h1>
        <Button onClick={() => void navigate(-1)}>{t`Cancel`}</Button>
        <Button
          look="primary"
          type="submit"
          disabled={!counts || progress !== undefined}
          data-testid="make-planner"
        >{t`Make the planner`}</Button>
      </header>
      <div className="mt-6 grid grid-cols-[280px_minmax(0,1fr)_236px] gap-x-10 gap-y-6 max-xl:grid-cols-[280px_1fr] max-md:grid-cols-1">
        <div className="grid content-start gap-4">
          <div>
            <NameField value={chosen.name} onChange={(name) => change({ name })} problem={problem && nameProblem} />
          </div>
          <div className="grid grid-cols-2 gap-2">
            <Day
              label={t`First day`}
              value={chosen.first}
              testId="planner-first"
              onChange={(first) => change({ first })}
            />
            <Day label={t`Last day`} value={chosen.last} testId="planner-last" onChange={(last) => change({ last })} />
          </div>
          <fieldset>
            <legend className="mb-1 font-semibold">{t`Weeks begin on`}</legend>
            <div className="flex gap-1.5">
              {(['monday', 'sunday'] as const).map((day) => (
                <Toggle
                  on={chosen.week === day}
                  key={day}
                  data-testid={`planner-week-${day}`}
                  onClick={() => change({ week: day })}
                  className="grow"
                >
                  {day === 'monday' ? t`Monday` : t`Sunday`}
                </Toggle>
              ))}
            </div>
          </fieldset>
          <label>
            <span className="mb-1 block font-semibold">{t`Days and months in`}</span>
            <select
              className="select h-11 w-full border-base-300 bg-base-100"
              value={chosen.language}
              data-testid="planner-language"
              onChange={(event) => change({ language: event.target.value })}
            >
              {languages.map((one) => (
                <option key={one.code} value={one.code}>
                  {one.name}
                </option>
              ))}
            </select>
          </label>
          <Section title={t`Calendar`}>
            <CalendarField source={calendar} onChange={setCalendar} />
            <p className="pt-2 text-[13.5px] text-quiet">{t`If there is one: holidays, lessons, appointments. A newer one can be taken over later.`}</p>
          </Section>
        </div>
        <Section title={t`Pages`}>
          <KindList chosen={chosen} counts={counts} onChange={change} />
          <p className="pt-3 text-quiet" data-testid="planner-count">
            {counts
              ? plural(counts.pages ?? 0, {
                  one: '# page. Every date leads to its page, and the tabs at the edge to every month.',
                  other: '# pages. Every date leads to its page, and the tabs at the edge to every month.',
                })
              : ''}
          </p>
          <Problem words={refused || (nameProblem ? '' : problem)} testId="planner-problem" />
          {progress && (
            <p role="status" className="flex items-center gap-3" data-testid="planner-progress">
              <span className="loading loading-spinner loading-sm" /> {progress.words}
              {progress.giveUp && <Button onClick={() => progress.giveUp!.abort()}>{t`Give up`}</Button>}
            </p>
          )}
        </Section>
        <div className="grid content-start justify-items-center gap-3 bg-desk p-6 max-xl:hidden">
          {(['month', 'week', 'day'] as const)
            .filter((kind) => chosen.kinds.includes(kind))
            .map((kind) => (
              <PaperPicture key={kind} paper={chosen.papers[kind]} width={188} height={212} />
            ))}
        </div>
      </div>
    </form>
  );
}

function Section({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section aria-label={title}>
      <h2 className="mb-2 border-b border-base-300 pb-1 text-[19px]">{title}</h2>
      {children}
    </section>
  );
}

function Day({
  label,
  value,
  testId,
  onChange,
}: {
  label: string;
  value: string;
  testId: string;
  onChange: (value: string) => void;
}) {
  return (
    <label>
      <span className="mb-1 block font-semibold">{label}</span>
      <input
        type="date"
        required
        className="field"
        value={value}
        data-testid={testId}
        onChange={(event) => onChange(event.target.value)}
      />
    </label>
  );
}
