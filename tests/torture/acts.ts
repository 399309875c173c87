import { type Core, properties } from '../../src/web/src/core/runtime';
import { nodeKinds, root } from '../../src/web/src/model/items';
import type { OpenDocument } from '../../src/web/src/sync/openDocument';
import type { Chance } from './chance';

/** The documents that all write in. */
export interface Documents {
  library: OpenDocument;
  notebook: OpenDocument;
  pages: OpenDocument[];
}

const everything = 15;
const ball = [1, 40, 0x1f3d3aff, 0, 0, 0, 0];

/** Something that a person might do, drawn by chance. */
export function act(core: Core, { library, notebook, pages }: Documents, chance: Chance): void {
  const page = chance.of(pages)!;
  const items = () => core.HandBridge.SelectAll(page.handle, everything, '');
  const some = () => items().filter(() => chance.next() < 0.3);
  const choices: (() => unknown)[] = [
    () => write(core, page, chance),
    () => write(core, page, chance),
    () => write(core, page, chance),
    () => begun(core, page, core.PageBridge.BeginUndo(page.handle)),
    () => begun(core, page, core.PageBridge.BeginRedo(page.handle)),
    () => ifAny(some(), (ids) => page.perform((handle, now) => core.HandBridge.Remove(handle, ids, now))),
    () =>
      ifAny(some(), (ids) =>
        page.perform((handle, now) =>
          core.HandBridge.Shift(handle, ids, chance.below(900) - 450, chance.below(900) - 450, now),
        ),
      ),
    () =>
      ifAny(some(), (ids) =>
        page.performTogether((handle, now) =>
          core.HandBridge.Transform(handle, ids, [0.9, 0.1, -0.1, 0.9, chance.below(500), 0], now),
        ),
      ),
    () =>
      ifAny(some(), (ids) => page.perform((handle, now) => core.HandBridge.Set(handle, ids, [1], ['b4533cff'], now))),
    () =>
      page.perform((handle, now) =>
        core.SpotBridge.Add(
          handle,
          chance.id(),
          1,
          [0, 0, 700, 700],
          [],
          [2, 3],
          ['todo', `note ${chance.below(99)}`],
          now,
        ),
      ),
    () =>
      page.performTogether((handle, now) =>
        core.LayerBridge.Add(handle, chance.id(), `Layer ${chance.below(99)}`, '', now),
      ),
    () => {
      const layers = JSON.parse(core.LayerBridge.All(page.handle)) as { id: string }[];
      const [one, other] = [chance.of(layers)!.id, chance.of(layers)!.id];
      if (one !== root && one !== other)
        page.perform((handle, now) => core.LayerBridge.Set(handle, one, 6, other, now));
    },
    () => place(core, notebook, chance, chance.id(), 'page'),
    () => place(core, notebook, chance, chance.id(), 'section'),
    () => {
      const entry = chance.of(outline(core, notebook));
      if (entry) place(core, notebook, chance, entry.id, entry.kind);
    },
    () => {
      const entry = chance.of(outline(core, notebook));
      if (!entry) return;
      const [property, value] = chance.of([
        [properties.name, `Title ${chance.below(99)}`],
        [properties.binned, '1'],
        [properties.binned, ''],
        [properties.colour, 'gold'],
      ] as const)!;
      notebook.perform((handle, now) => core.LibraryBridge.SetProperty(handle, entry.id, property, value, now));
    },
    () => {
      const kind = chance.of(['folder', 'notebook', 'tag'] as const)!;
      const id = chance.id();
      library.perform((handle, now) =>
        core.LibraryBridge.SetProperty(handle, id, properties.name, `${kind} ${chance.below(999)}`, now),
      );
      library.performTogether((handle, now) =>
        core.LibraryBridge.Place(handle, id, nodeKinds[kind], root, chance.of(['first', ''])!, now),
      );
    },
    () => {
      const nodes = (JSON.parse(core.LibraryBridge.TakeChanges(library.handle, true)) as Nodes).changed;
      const [one, other] = [chance.of(nodes), chance.of(nodes.filter((node) => node.kind === 'folder'))];
      if (one && other)
        library.performTogether((handle, now) =>
          core.LibraryBridge.Place(handle, one.id, nodeKinds[one.kind], other.id, '', now),
        );
    },
    () => {
      const nodes = (JSON.parse(core.LibraryBridge.TakeChanges(library.handle, true)) as Nodes).changed;
      const [one, tag] = [chance.of(nodes), chance.of(nodes.filter((node) => node.kind === 'tag'))];
      if (one && tag)
        library.perform((handle, now) => core.LibraryBridge.SetTag(handle, one.id, tag.id, chance.next() < 0.7, now));
    },
  ];
  try {
    chance.of(choices)!();
  } catch (problem) {
    // What the rules refuse in a sentence is refused to people as well.
    if (!(problem instanceof Error) || problem.message.includes('index out of bounds')) throw problem;
  }
}

interface Nodes {
  changed: { id: string; kind: 'folder' | 'notebook' | 'tag' | 'lens' | 'paper' | 'markKind' }[];
}

function write(core: Core, page: OpenDocument, chance: Chance): void {
  const stroke = core.PenBridge.Begin(ball, 0);
  const samples = 4 + chance.below(25);
  const [x, y] = [chance.below(18_000), chance.below(27_000)];
  const flat = Int32Array.from(
    Array.from({ length: samples }, (_, i) => [
      x + i * 40,
      y + chance.below(120),
      300 + chance.below(600),
      i * 8,
      0,
      0,
    ]).flat(),
  );
  core.PenBridge.Add(stroke, flat);
  core.PenBridge.End(stroke);
  page.perform((handle, now) => core.PenBridge.Keep(stroke, handle, '', Date.now(), now));
}

function begun(core: Core, page: OpenDocument, count: number): void {
  if (count > 0) page.performTogether((handle, now) => core.PageBridge.GoOn(handle, count, now));
}

function ifAny(ids: string[], then: (ids: string[]) => unknown): void {
  if (ids.length > 0) then(ids);
}

interface Entry {
  id: string;
  kind: 'page' | 'section';
}

function outline(core: Core, notebook: OpenDocument): Entry[] {
  return JSON.parse(core.NotebookBridge.Outline(notebook.handle, true)) as Entry[];
}

function place(core: Core, notebook: OpenDocument, chance: Chance, id: string, kind: Entry['kind']): void {
  const entries = outline(core, notebook);
  const parent =
    chance.next() < 0.4 ? chance.of(entries.filter((entry) => entry.kind === 'section' && entry.id !== id)) : undefined;
  notebook.performTogether((handle, now) =>
    core.NotebookBridge.Place(handle, id, nodeKinds[kind], parent?.id ?? root, chance.of(['first', ''])!, now),
  );
}
