import { t } from '@lingui/core/macro';
import { useNavigate } from 'react-router';
import { addPage } from '../data/addPage';
import { openPath, root } from '../model/items';
import { type Personal, usePersonal } from '../data/usePersonal';
import { useSession } from '../server/session';
import { type Workspace } from '../sync/workspace';
import { useWorkspace } from '../data/useWorkspace';
import { dayKey, dayWords, dateWords, clockWords } from '../model/time';

/** Makes a jot and goes to its empty page: a notebook of one page on the preset paper, titled with date and time, which waits under Jots. */
export function useJot(): (() => Promise<void>) | undefined {
  const personal = usePersonal();
  const navigate = useNavigate();
  return personal && (async () => void (await navigate(makeJot(personal))));
}

export function makeJot({ library, jotPreset }: Personal): string {
  const now = new Date();
  const title = `${dateWords(now)}, ${clockWords(now)}`;
  // Two of one minute are told apart.
  const called = new Set(library.jots().map((jot) => jot.name));
  let name = title;
  for (let number = 2; called.has(name); number++) name = `${title} (${number})`;
  const { notebook, page } = library.newNotebook(root, name, {
    colour: jotPreset.colour,
    cover: 'dots',
    paper: jotPreset.paper,
    jot: true,
  });
  return `${openPath(library.space, notebook, page)}?pen=${jotPreset.pen}`;
}

/** Goes to the page of today, and makes it when there is none yet: one a day, in the chosen notebook. */
export function useToday(): (() => Promise<void>) | undefined {
  const personal = usePersonal();
  const workspace = useWorkspace();
  const { spaces } = useSession();
  const navigate = useNavigate();
  return (
    personal &&
    (async () => void (await navigate(await makeToday(personal, workspace, new Set(spaces.map((space) => space.id))))))
  );
}

export async function makeToday(personal: Personal, workspace: Workspace, spaces: Set<string>): Promise<string> {
  const { library } = personal;
  let preset = personal.todayPreset;
  const isThere =
    preset &&
    spaces.has(preset.space) &&
    (preset.space !== library.space || library.find(preset.notebook)?.inBin === false);
  if (!preset || !isThere) {
    // The days' own notebook comes into being with the first day.
    const paper = preset?.paper ?? personal.jotPreset.paper;
    preset = {
      space: library.space,
      notebook: library.emptyNotebook(root, t`Days`, { colour: 'sky', cover: 'waves', paper }),
      paper,
    };
    personal.setTodayPreset(preset);
  }
  const page = await pageOfToday(workspace, preset.space, preset.notebook);
  await addPage(workspace, preset.space, preset.notebook, page, preset.paper, dayWords());
  return openPath(preset.space, preset.notebook, page);
}

/** In a planner that has a page for this day, it is that one. */
async function pageOfToday(workspace: Workspace, space: string, notebook: string): Promise<string> {
  const { NotebookBridge, PlannerBridge } = workspace.core;
  const document = await workspace.acquire(space, 'notebook', notebook);
  const isPlanner = PlannerBridge.Settings(document.handle, notebook) !== '';
  const day = PlannerBridge.PageId(document.handle, notebook, `day/${dayKey()}`);
  const hasDay =
    isPlanner &&
    (JSON.parse(NotebookBridge.Outline(document.handle, false)) as { id: string }[]).some((entry) => entry.id === day);
  const page = hasDay ? day : NotebookBridge.TodayPage(document.handle, notebook, dayKey());
  workspace.release(space, 'notebook', notebook);
  return page;
}
