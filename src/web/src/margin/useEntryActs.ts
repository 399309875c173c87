import type { DragEndEvent } from '@dnd-kit/core';
import { plural, t } from '@lingui/core/macro';
import { useAct } from '../data/doing';
import type { Notebook } from '../data/useNotebook';
import { type NotebookEntry, root } from '../model/items';
import { say } from '../ui/saying';

export type EntryActs = ReturnType<typeof useEntryActs>;

/** What is done to sections and pages in the contents: to one, or to all that are chosen with it. */
export function useEntryActs(notebook: Notebook, chosen: ReadonlySet<string>) {
  const act = useAct();
  const chosenOr = (id: string) =>
    chosen.has(id) ? notebook.entries.filter((entry) => chosen.has(entry.id)).map((entry) => entry.id) : [id];
  /** What is chosen together with something it lies in moves along with that. */
  const heads = (ids: string[]) =>
    ids.filter((id) => !ids.some((other) => other !== id && notebook.isWithin(id, other)));

  const bin = (ids: string[]) => {
    act(plural(ids.length, { one: 'Put into the bin.', other: 'Put # things into the bin.' }), () =>
      ids.forEach((id) => notebook.toBin(id)),
    );
  };
  const duplicate = async (ids: string[]) => {
    let refused = '';
    for (const id of ids) refused ||= await notebook.duplicate(id);
    say(refused || t`Duplicated.`);
  };
  const drop = ({ active, over }: DragEndEvent) => {
    const [how, target = ''] = String(over?.id ?? '').split(' ');
    const entry = notebook.find(target);
    if (!how || (target && !entry)) return;
    const ids = heads(chosenOr(String(active.id))).filter((id) => id !== target);
    act(t`Moved.`, () => {
      for (const id of how === 'into' ? ids : ids.toReversed()) {
        const { kind } = notebook.find(id)!;
        if (how === 'into') notebook.place(id, kind, target || root, '');
        else notebook.place(id, kind, entry!.parent, target);
      }
    });
  };
  const step = (entry: NotebookEntry, by: number) => {
    const siblings = notebook.entries.filter((one) => one.parent === entry.parent);
    const index = siblings.indexOf(entry);
    const after = by > 0 ? siblings[index + 1]?.id : index > 0 ? (siblings[index - 2]?.id ?? 'first') : undefined;
    if (after) act(t`Moved.`, () => notebook.place(entry.id, entry.kind, entry.parent, after));
  };
  const nest = (entry: NotebookEntry, inwards: boolean) => {
    const siblings = notebook.entries.filter((one) => one.parent === entry.parent);
    const before = siblings[siblings.indexOf(entry) - 1];
    const parent = notebook.find(entry.parent);
    if (inwards && before) act(t`Moved.`, () => notebook.place(entry.id, entry.kind, before.id, ''));
    if (!inwards && parent) act(t`Moved.`, () => notebook.place(entry.id, entry.kind, parent.parent, parent.id));
  };
  return { chosenOr, heads, bin, duplicate, drop, step, nest };
}
