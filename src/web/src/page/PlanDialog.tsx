import { t } from '@lingui/core/macro';
import { useEffect, useState } from 'react';
import type { Seen } from '../core/seenBridge';
import { type OpenNotebook, useOpenNotebooks } from '../data/openNotebooks';
import { may } from '../data/rights';
import { useLibraries } from '../data/useLibrary';
import { usePersonal } from '../data/usePersonal';
import { useWorkspace } from '../data/useWorkspace';
import { dayKey } from '../model/time';
import { useSession } from '../server/session';
import { FormDialog, Problem } from '../ui/FormDialog';
import { say } from '../ui/saying';

const usualMinutes = 60;
const lengths = [15, 30, 45, 60, 90, 120, 180, 240];
/** So much of a line makes a title. */
const mostTitle = 120;

interface Planner {
  space: string;
  notebook: string;
  name: string;
}

/** What was seen in typed words becomes an entry of a planner. */
export function PlanDialog({
  here,
  seen,
  all,
  onClose,
}: {
  here: OpenNotebook;
  seen: Seen;
  /** All that is seen on the page: a day and a time in one line belong together. */
  all: Seen[];
  onClose: () => void;
}) {
  const workspace = useWorkspace();
  const planners = usePlanners(here);
  const inLine = (kind: 'day' | 'time') =>
    seen.kind === kind
      ? seen.value
      : (all.find((one) => one.kind === kind && one.item === seen.item && one.line === seen.line)?.value ?? '');
  const [chosen, setChosen] = useState<string>();
  const [title, setTitle] = useState(() => titleOf(seen));
  const [day, setDay] = useState(() => inLine('day') || dayKey());
  const [time, setTime] = useState(() => inLine('time'));
  const [minutes, setMinutes] = useState(usualMinutes);
  const planner = planners?.find((one) => one.notebook === chosen) ?? planners?.[0];
  return (
    <FormDialog
      title={t`Into a planner`}
      confirm={t`Put it in`}
      disabled={!planner || !title.trim() || !day}
      onClose={onClose}
      onConfirm={async () => {
        const { space, notebook, name } = planner!;
        const document = await workspace.acquire(space, 'notebook', notebook);
        try {
          document.perform((handle, now) =>
            workspace.core.PlannerBridge.AddEntry(
              handle,
              notebook,
              crypto.randomUUID(),
              day,
              time,
              minutes,
              title.trim(),
              now,
            ),
          );
          say(t`It stands in “${name}” now.`);
        } finally {
          workspace.release(space, 'notebook', notebook);
        }
      }}
    >
      {(problem) => (
        <div className="grid gap-3">
          {planners?.length === 0 && (
            <p className="text-quiet" data-testid="no-planner">
              {t`No planner is at hand. Open yours once, and it is offered here.`}
            </p>
          )}
          {planners && planners.length > 0 && (
            <label>
              <span className="mb-1 block font-semibold">{t`Planner`}</span>
              <select
                className="select h-11 w-full border-base-300 bg-base-100"
                data-testid="plan-planner"
                value={planner?.notebook}
                onChange={(event) => setChosen(event.target.value)}
              >
                {planners.map(({ notebook, name }) => (
                  <option key={notebook} value={notebook}>
                    {name}
                  </option>
                ))}
              </select>
            </label>
          )}
          <Plain label={t`What it is`} value={title} testId="plan-title" onValue={setTitle} />
          <div className="grid grid-cols-3 gap-3 max-sm:grid-cols-1">
            <Plain label={t`Day`} type="date" value={day} testId="plan-day" onValue={setDay} />
            <Plain label={t`Begins at`} type="time" value={time} testId="plan-time" onValue={setTime} />
            <label>
              <span className="mb-1 block font-semibold">{t`Minutes`}</span>
              <select
                className="select h-11 w-full border-base-300 bg-base-100"
                data-testid="plan-minutes"
                value={minutes}
                disabled={!time}
                onChange={(event) => setMinutes(Number(event.target.value))}
              >
                {lengths.map((length) => (
                  <option key={length}>{length}</option>
                ))}
              </select>
            </label>
          </div>
          <p className="text-[13.5px] text-quiet">{t`Without a time it fills the whole day.`}</p>
          <Problem words={problem} testId="plan-problem" />
        </div>
      )}
    </FormDialog>
  );
}

function Plain({
  label,
  type = 'text',
  value,
  testId,
  onValue,
}: {
  label: string;
  type?: string;
  value: string;
  testId: string;
  onValue: (value: string) => void;
}) {
  return (
    <label>
      <span className="mb-1 block font-semibold">{label}</span>
      <input
        type={type}
        className="input h-11 w-full border-base-300 bg-base-100"
        data-testid={testId}
        value={value}
        onChange={(event) => onValue(event.target.value)}
      />
    </label>
  );
}

/** Planners that are at hand: this notebook, that of today’s page, and those that are open on this device. Undefined while they are looked for. */
function usePlanners(here: OpenNotebook): Planner[] | undefined {
  const workspace = useWorkspace();
  const personal = usePersonal();
  const libraries = useLibraries();
  const { spaces } = useSession();
  const open = useOpenNotebooks();
  const [found, setFound] = useState<Planner[]>();
  const today = personal?.todayPreset;
  useEffect(() => {
    let isOver = false;
    const look = async () => {
      const planners: Planner[] = [];
      for (const { space, notebook } of [here, ...(today ? [today] : []), ...open]) {
        const node = libraries.get(space)?.find(notebook);
        const mayWrite = may(
          spaces.find((one) => one.id === space),
          'Write',
        );
        if (!node || node.inBin || !mayWrite || planners.some((one) => one.notebook === notebook)) continue;
        // One that cannot be had now, such as a locked one, is not offered.
        const document = await workspace.acquire(space, 'notebook', notebook).catch(() => undefined);
        if (!document) continue;
        const settings = workspace.core.PlannerBridge.Settings(document.handle, notebook);
        workspace.release(space, 'notebook', notebook);
        if (settings) planners.push({ space, notebook, name: node.name });
      }
      if (!isOver) setFound(planners);
    };
    void look();
    return () => {
      isOver = true;
    };
  }, []);
  return found;
}

/** The line without the words that say when. */
function titleOf({ line, words }: Seen): string {
  const rest = line
    .replace(words, '')
    .replaceAll(/\s+/g, ' ')
    .replace(/[\s,;:]+$/, '')
    .trim();
  return (rest || line).slice(0, mostTitle);
}
