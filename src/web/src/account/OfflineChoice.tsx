import { plural, t } from '@lingui/core/macro';
import { XIcon } from '@phosphor-icons/react';
import type { ReactNode } from 'react';
import { nameOf, recentDays, useKeepable, useKept } from '../data/useKeeping';
import { useLibraries } from '../data/useLibrary';
import { useSummaries } from '../data/useShelf';
import { bytesWords } from '../model/bytes';
import type { KeepMode, KeptNotebook } from '../sync/keeping';
import { SignButton } from '../ui/Button';
import { Radio } from '../ui/Labelled';

const modes: [mode: KeepMode, words: string][] = [
  ['opened', t`What I open`],
  ['recent', t`Also all I opened in the last ${recentDays} days`],
  ['all', t`All my notebooks`],
];

/** What is on this device without a connection, and how much that is. */
export function OfflineChoice() {
  const keeping = useKept();
  const keepable = useKeepable();
  const summaries = useSummaries();
  const { mode, road } = keeping.choice;
  const sizeOf = (notebooks: readonly string[]) =>
    notebooks.reduce((sum, notebook) => sum + (summaries.get(notebook)?.size ?? 0), 0);
  const choices = modes.map(([choice, words]) => {
    const notebooks = keepable(choice).map((one) => one.notebook);
    return { choice, words, notebooks };
  });
  const chosen = [...new Set([...road, ...choices.find(({ choice }) => choice === mode)!.notebooks])];
  return (
    <fieldset className="mt-2 border-t border-base-300 pt-4" data-testid="offline-choice">
      <legend className="float-left mb-1 font-semibold">{t`What is here without a connection`}</legend>
      <div className="clear-both">
        {choices.map(({ choice, words, notebooks }) => (
          <Radio
            key={choice}
            name="keep"
            on={mode === choice}
            testId={`keep-${choice}`}
            onChoose={() => keeping.choose({ mode: choice, road })}
          >
            {words}
            {choice !== 'opened' && (
              <Quiet>
                {plural(notebooks.length, { one: '# notebook', other: '# notebooks' })}, {bytesWords(sizeOf(notebooks))}
              </Quiet>
            )}
          </Radio>
        ))}
      </div>
      {chosen.length > 0 && (
        <p className="mt-1 text-quiet" role="status" data-testid="kept-words">
          {keptWords(chosen.map((notebook) => keeping.stateOf(notebook)))}
        </p>
      )}
      <Refusals notebooks={chosen.filter((notebook) => !road.includes(notebook))} />
      {road.length > 0 && (
        <>
          <h3 className="mt-4 font-semibold">{t`Kept for the road`}</h3>
          <ul>
            {road.map((notebook) => (
              <OnRoad
                key={notebook}
                notebook={notebook}
                size={sizeOf([notebook])}
                onLeave={() => keeping.keepForRoad(notebook, false)}
              />
            ))}
          </ul>
        </>
      )}
      <p className="mt-2 text-[13px] text-quiet">{t`Before a journey, choose “Keep for the road” in a notebook’s menu. What is kept is brought up to date whenever there is a connection.`}</p>
    </fieldset>
  );
}

/** Which of those that are to be here cannot be, and why. */
function Refusals({ notebooks }: { notebooks: readonly string[] }) {
  const keeping = useKept();
  const libraries = useLibraries();
  return notebooks.flatMap((notebook) => {
    const problem = keeping.stateOf(notebook)?.problem;
    return problem ? (
      <p key={notebook} className="text-[13px] text-quiet" data-testid="not-kept">
        {t`“${nameOf(libraries, notebook) ?? ''}”: ${problem}`}
      </p>
    ) : (
      []
    );
  });
}

function OnRoad({ notebook, size, onLeave }: { notebook: string; size: number; onLeave: () => void }) {
  const name = nameOf(useLibraries(), notebook);
  const state = useKept().stateOf(notebook);
  return (
    <li className="flex min-h-11 items-center gap-3 border-b border-base-300" data-testid="on-road">
      <span className="min-w-0 grow truncate">{name ?? t`A notebook that is not there any more`}</span>
      <span className="shrink-0 text-[13px] text-quiet">
        {state && stateWords(state)}
        {size > 0 && <> · {bytesWords(size)}</>}
      </span>
      <SignButton label={t`Keep no longer for the road`} data-testid="leave-road" onClick={onLeave}>
        <XIcon size={18} weight="light" />
      </SignButton>
    </li>
  );
}

function stateWords({ pages, here, isReady, problem }: KeptNotebook): string {
  if (problem) return problem;
  if (isReady) return plural(pages, { one: 'ready, # page', other: 'ready, # pages' });
  return t`${here} of ${pages} pages`;
}

function keptWords(states: (KeptNotebook | undefined)[]): string {
  const ready = states.filter((state) => state?.isReady).length;
  if (ready === states.length) return t`All of it is on this device.`;
  const here = states.reduce((sum, state) => sum + (state?.here ?? 0), 0);
  const pages = states.reduce((sum, state) => sum + (state?.pages ?? 0), 0);
  return t`${ready} of ${states.length} notebooks are on this device; ${here} of ${pages} pages so far.`;
}

const Quiet = ({ children }: { children: ReactNode }) => (
  <span className="block text-[13px] text-quiet">{children}</span>
);
