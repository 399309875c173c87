import { may, mayTouch } from '../data/rights';
import { plural, t } from '@lingui/core/macro';
import {
  ArrowBendUpRightIcon,
  ArrowClockwiseIcon,
  BookmarkSimpleIcon,
  BroomIcon,
  CopyIcon,
  FileIcon,
  FilePlusIcon,
  StackIcon,
  StarIcon,
  TagIcon,
  TrashIcon,
} from '@phosphor-icons/react';
import { type ReactNode, useState } from 'react';
import { NameDialog } from '../ui/naming';
import type { Library } from '../data/Library';
import { defaultPaper, type NotebookEntry, root } from '../model/items';
import { say } from '../ui/saying';
import { useAct } from '../data/doing';
import { TagDialog } from '../tags/TagDialog';
import { usePersonal } from '../data/usePersonal';
import type { Selection } from '../ui/useChosen';
import { ChangePaperDialog } from '../papers/ChangePaperDialog';
import { movedTo } from '../moving/movedTo';
import { PlaceDialog } from '../moving/PlaceDialog';
import type { Notebook } from '../data/useNotebook';
import { PaperDialog } from '../papers/PaperDialog';
import { freezePage, makeOwnPaper } from '../data/ownPapers';
import { type Space, useSession } from '../server/session';
import type { Workspace } from '../sync/workspace';
import { useWorkspace } from '../data/useWorkspace';
import type { MenuEntry } from '../ui/Menu';

type Asking =
  | { what: 'paper' | 'tags' | 'copy' | 'move'; ids: string[] }
  | { what: 'add'; after: string }
  | { what: 'freeze'; page: NotebookEntry };

export interface PageActions {
  chosenOr: (id: string) => string[];
  /** Puts pages before or after another, or at the end of a section. */
  put: (ids: string[], where: 'before' | 'after' | 'section', target: string) => void;
  step: (page: NotebookEntry, by: number) => void;
  bin: (ids: string[]) => void;
  duplicate: (ids: string[]) => Promise<void>;
  turn: (ids: string[]) => Promise<void>;
  star: (ids: string[]) => void;
  bookmark: (ids: string[]) => void;
  ask: (asking: Asking) => void;
  /** Whether one is in the library around the notebook, and no guest. */
  reachesOut: boolean;
  menu: (page: NotebookEntry) => MenuEntry[];
  dialog: ReactNode;
}

interface Given {
  space: Space;
  notebook: Notebook;
  library: Library;
  selection: Selection;
}

/** What needs the library around the notebook, which a guest has not. */
const outwards = new Set(['page-freeze', 'page-tags', 'page-duplicate', 'page-copy', 'page-move']);

/** What takes a page from where others left it, which a group may keep to those who made it. */
const takingAway = new Set(['page-move', 'page-bin', 'page-clear', 'page-turn']);

/** What is done with pages in the overview, one or many at once. */
export function usePageActions({ space, notebook, library, selection }: Given): PageActions {
  const workspace = useWorkspace();
  const personal = usePersonal();
  const act = useAct();
  const [asking, setAsking] = useState<Asking>();
  const mayWrite = may(space, 'Write');
  const { person } = useSession();
  const reachesOut = !space.isGuest;
  const mayTake = (ids: string[]) => ids.every((id) => mayTouch(space, notebook.find(id)?.createdBy === person.id));
  const chosenOr = (id: string) =>
    selection.chosen.has(id)
      ? notebook.pages.filter((page) => selection.chosen.has(page.id)).map((page) => page.id)
      : [id];

  const put: PageActions['put'] = (ids, where, target) => {
    const at = notebook.find(target)!;
    if (where === 'section')
      return act(t`Moved.`, () => ids.forEach((id) => notebook.place(id, 'page', target || root, '')));
    // One after the other behind the page before, so that they keep their order.
    const siblings = notebook.entries.filter((entry) => entry.parent === at.parent && !ids.includes(entry.id));
    let after =
      where === 'after' ? target : (siblings[siblings.findIndex((entry) => entry.id === target) - 1]?.id ?? 'first');
    act(t`Moved.`, () => {
      for (const id of ids) {
        notebook.place(id, 'page', at.parent, after);
        after = id;
      }
    });
  };
  const step: PageActions['step'] = (page, by) => {
    const siblings = notebook.entries.filter((entry) => entry.parent === page.parent);
    const other = siblings[siblings.findIndex((entry) => entry.id === page.id) + by];
    if (other) put([page.id], by > 0 ? 'after' : 'before', other.id);
  };
  const bin = (ids: string[]) => {
    if (!mayTake(ids)) return say(t`In this group one bins only what one made.`);
    act(plural(ids.length, { one: 'Put the page into the bin.', other: 'Put # pages into the bin.' }), () =>
      ids.forEach((id) => notebook.toBin(id)),
    );
    selection.clear();
  };
  const duplicate = async (ids: string[]) => {
    let refused = '';
    for (const id of ids) refused ||= await notebook.duplicate(id);
    say(refused || t`Duplicated.`);
  };
  const turn = async (ids: string[]) => {
    act(
      plural(ids.length, { one: 'Turned the page to the right.', other: 'Turned # pages to the right.' }),
      async () => {
        for (const id of ids) await notebook.turn(id);
      },
    );
  };
  const clear = async (page: NotebookEntry) => {
    act(t`Cleared.`, () => notebook.clear(page.id));
  };
  const star = (ids: string[]) => {
    const on = !ids.every((id) => personal?.stars.has(id));
    for (const id of ids) personal?.star(id, on);
    say(
      on
        ? plural(ids.length, { one: 'Starred the page.', other: 'Starred # pages.' })
        : plural(ids.length, { one: 'Took the star off the page.', other: 'Took the star off # pages.' }),
    );
  };
  const bookmark = (ids: string[]) => {
    const on = !ids.every((id) => personal?.bookmarks.has(id));
    for (const id of ids) personal?.bookmark(id, notebook.id, on);
    say(
      on
        ? plural(ids.length, { one: 'Bookmarked the page.', other: 'Bookmarked # pages.' })
        : plural(ids.length, { one: 'Took the bookmark out of the page.', other: 'Took the bookmark out of # pages.' }),
    );
  };
  const light = { size: 20, weight: 'light' } as const;
  const menu = (page: NotebookEntry): MenuEntry[] => {
    const ids = chosenOr(page.id);
    const own: MenuEntry[] = [
      { label: t`Star`, icon: <StarIcon {...light} />, onChoose: () => star(ids) },
      { label: t`Bookmark`, icon: <BookmarkSimpleIcon {...light} />, onChoose: () => bookmark(ids) },
    ];
    if (!mayWrite) return own;
    const all: MenuEntry[] = [
      {
        label: t`New page before`,
        testId: 'page-add-before',
        icon: <FilePlusIcon {...light} />,
        onChoose: () => void notebook.addPageBefore(page.id),
      },
      {
        label: t`New page after`,
        testId: 'page-add-after',
        icon: <FilePlusIcon {...light} />,
        onChoose: () => void notebook.addPageAfter(page.id),
      },
      {
        label: t`New page on other paper`,
        testId: 'page-add-other',
        icon: <FilePlusIcon {...light} />,
        onChoose: () => setAsking({ what: 'add', after: page.id }),
      },
      {
        label: t`Paper`,
        testId: 'page-paper',
        icon: <FileIcon {...light} />,
        onChoose: () => setAsking({ what: 'paper', ids }),
      },
      {
        label: t`Make it a paper`,
        testId: 'page-freeze',
        icon: <StackIcon {...light} />,
        onChoose: () => setAsking({ what: 'freeze', page }),
      },
      {
        label: t`Tags`,
        testId: 'page-tags',
        icon: <TagIcon {...light} />,
        onChoose: () => setAsking({ what: 'tags', ids }),
      },
      ...own,
      {
        label: t`Duplicate`,
        testId: 'page-duplicate',
        icon: <CopyIcon {...light} />,
        onChoose: () => void duplicate(ids),
      },
      {
        label: t`Copy to`,
        testId: 'page-copy',
        icon: <CopyIcon {...light} />,
        onChoose: () => setAsking({ what: 'copy', ids }),
      },
      {
        label: t`Move`,
        testId: 'page-move',
        icon: <ArrowBendUpRightIcon {...light} />,
        onChoose: () => setAsking({ what: 'move', ids }),
      },
      {
        label: t`Turn to the right`,
        testId: 'page-turn',
        icon: <ArrowClockwiseIcon {...light} />,
        onChoose: () => void turn(ids),
      },
      { label: t`Clear it`, testId: 'page-clear', icon: <BroomIcon {...light} />, onChoose: () => void clear(page) },
      { label: t`Put into the bin`, testId: 'page-bin', icon: <TrashIcon {...light} />, onChoose: () => bin(ids) },
    ];
    const mayTakeAway = mayTake(ids);
    return all.filter(
      (entry) =>
        (reachesOut || !outwards.has(entry.testId ?? '')) && (mayTakeAway || !takingAway.has(entry.testId ?? '')),
    );
  };
  const close = () => setAsking(undefined);
  return {
    chosenOr,
    put,
    step,
    bin,
    duplicate,
    turn,
    star,
    bookmark,
    ask: setAsking,
    reachesOut,
    menu,
    dialog: asking && dialogOf(asking, { space, notebook, library, selection, workspace }, close),
  };
}

function dialogOf(
  asking: Asking,
  { space, notebook, library, selection, workspace }: Given & { workspace: Workspace },
  close: () => void,
): ReactNode {
  switch (asking.what) {
    case 'paper':
      return <ChangePaperDialog space={space.id} notebook={notebook} ids={asking.ids} onClose={close} />;
    case 'add':
      return (
        <PaperDialog
          title={t`New page on other paper`}
          confirm={t`Add the page`}
          value={notebook.find(asking.after)?.paper || defaultPaper}
          space={space.id}
          onConfirm={(paper) => void notebook.addPage(notebook.find(asking.after)!.parent, asking.after, paper)}
          onClose={close}
        />
      );
    case 'tags': {
      const pages = asking.ids.flatMap((id) => notebook.find(id) ?? []);
      const carried = library
        .tagsOf(pages[0]?.tags ?? [])
        .filter((tag) => pages.every((page) => page.tags.some((id) => tag.ids.includes(id))));
      return (
        <TagDialog
          title={
            pages.length === 1
              ? t`Tags of page ${pages[0]!.number}`
              : plural(pages.length, { one: 'Tags of # page', other: 'Tags of # pages' })
          }
          library={library}
          carried={carried}
          onSet={(tag, on) =>
            pages.forEach((page) =>
              (on ? [tag] : (library.tagsOf([tag])[0]?.ids ?? [tag])).forEach((id) => notebook.setTag(page.id, id, on)),
            )
          }
          onClose={close}
        />
      );
    }
    case 'freeze':
      return (
        <NameDialog
          title={t`Make it a paper`}
          confirm={t`Make the paper`}
          name={asking.page.title}
          label={t`What the paper is called`}
          onClose={close}
          onConfirm={async (name) => {
            const { asset } = await freezePage(workspace, space.id, asking.page.id, asking.page.paper);
            makeOwnPaper(library, name, '', asset);
            say(t`“${name.trim()}” stands among the papers now.`);
          }}
        />
      );
    default:
      return (
        <PlaceDialog
          title={
            asking.what === 'copy'
              ? plural(asking.ids.length, { one: 'Copy the page to', other: 'Copy # pages to' })
              : plural(asking.ids.length, { one: 'Move the page to', other: 'Move # pages to' })
          }
          confirm={asking.what === 'copy' ? t`Copy here` : t`Move here`}
          space={space.id}
          notebook={notebook.id}
          without={asking.ids}
          onClose={close}
          onPlace={async (place) => {
            if (asking.what === 'move') {
              const refused = await movedTo(notebook, asking.ids, place);
              if (!refused) selection.clear();
              return refused;
            }
            let refused = '';
            for (const id of asking.ids) refused ||= await notebook.copyTo(id, place);
            if (!refused) say(t`Copied to ${place.words}.`);
            return refused;
          }}
        />
      );
  }
}
