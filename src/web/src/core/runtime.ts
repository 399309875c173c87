/** The functions that CalmQuill.Core.Browser exports. Batches and packets are bytes; an empty batch means that nothing was done. */
export interface Core {
  DocumentBridge: {
    Start(replica: string, author: string): void;
    CorrectClock(serverNow: number, deviceNow: number): void;
    Open(kind: number): number;
    Close(handle: number): void;
    Apply(handle: number, batch: Uint8Array): number;
    EncodeState(handle: number): Uint8Array;
    Snapshot(handle: number): Uint8Array;
    Restamp(batch: Uint8Array, now: number): Uint8Array;
  };
  PageBridge: {
    AddStroke(
      page: number, penKind: number, width: number, colour: number, samples: Int32Array, hasTilt: boolean, startedAt: number, now: number,
    ): Uint8Array;
    Undo(page: number, now: number): Uint8Array;
    Redo(page: number, now: number): Uint8Array;
    Steps(page: number): number;
    AllChanged(page: number): void;
    TakeChanged(page: number, most: number): Uint8Array;
    BeginErase(page: number, radius: number, whole: boolean): void;
    EraseAlong(page: number, spots: Float64Array): Uint8Array;
    EndErase(page: number, now: number): Uint8Array;
    OutlineOf(penKind: number, width: number, samples: Int32Array): Uint8Array;
  };
  PaperBridge: {
    Draw(paper: string, page: number, notebook: number, notebookId: string, pageId: string): string;
    Sheet(paper: string, page: number): number[];
    Cover(design: string, colour: string, name: string): string;
    Choices(): string;
    Read(paper: string): string;
  };
  SpotBridge: {
    Select(page: number, loop: Float64Array, share: number): string[];
    SelectAll(page: number): string[];
    BoundsOf(page: number, items: string[]): number[];
    Remove(page: number, items: string[], now: number): Uint8Array;
    Shift(page: number, items: string[], dx: number, dy: number, now: number): Uint8Array;
    Fit(page: number, factor: number, dx: number, dy: number, now: number): Uint8Array;
    Turn(page: number, height: number, now: number): Uint8Array;
    Spots(page: number): string;
    Add(page: number, spot: string, kind: number, area: number[], items: string[], fields: number[], values: string[], now: number): Uint8Array;
    Set(page: number, spot: string, fields: number[], values: string[], now: number): Uint8Array;
    Move(page: number, spot: string, dx: number, dy: number, now: number): Uint8Array;
    Cut(page: number, area: number[], spot: string): Uint8Array;
  };
  PlannerBridge: {
    Preview(settings: string): string;
    Languages(): string;
    Make(notebook: number, id: string, settings: string, papers: string[], colours: string[], random: number, now: number): Uint8Array;
    TakeCalendar(notebook: number, ids: string[], values: string[], now: number): Uint8Array;
    Entries(notebook: number): string;
    Settings(notebook: number, id: string): string;
    PageId(notebook: string, page: string): string;
    LayWeb(count: number, links: number[], groups: number[]): number[];
  };
  LibraryBridge: {
    TakeChanges(library: number, all: boolean): string;
    Tags(library: number): string;
    Registers(library: number, property: number): string;
    Often(library: number): string;
    Place(library: number, node: string, kind: number, parent: string, after: string, random: number, now: number): Uint8Array;
    SetProperty(document: number, target: string, property: number, value: string, now: number): Uint8Array;
    SetTag(document: number, target: string, tag: string, on: boolean, now: number): Uint8Array;
    MergeTags(library: number, from: string, into: string, now: number): Uint8Array;
    Visit(library: number, space: string, notebook: string, now: number): Uint8Array;
    Ask(library: number, rule: string, facts: string, notebooks: number[], notebookIds: string[], now: number, utcOffset: number): string;
    Fold(text: string): string;
  };
  NotebookBridge: {
    Outline(notebook: number, withBinned: boolean): string;
    Place(notebook: number, entry: string, kind: number, parent: string, after: string, random: number, now: number): Uint8Array;
    TodayPage(notebook: string, day: string): string;
    Read(notebook: number, target: string, property: number): string;
  };
}

interface DotnetModule {
  dotnet: { create(): Promise<{ getAssemblyExports(name: string): Promise<{ CalmQuill: { Core: { Browser: Core } } }> }> };
}

let loading: Promise<Core> | undefined;

/** Loads the rules of the job, compiled to WebAssembly, once. */
export function loadCore(): Promise<Core> {
  loading ??= (async () => {
    const address = '/_framework/dotnet.js';
    const { dotnet } = (await import(/* @vite-ignore */ address)) as DotnetModule;
    const runtime = await dotnet.create();
    return (await runtime.getAssemblyExports('CalmQuill.Core.Browser.dll')).CalmQuill.Core.Browser;
  })();
  return loading;
}

export const documentKinds = { library: 1, notebook: 2, page: 3 } as const;
export type DocumentKind = keyof typeof documentKinds;

export const properties = {
  name: 1,
  colour: 2,
  cover: 3,
  binned: 4,
  paper: 6,
  icon: 7,
  pinned: 8,
  jot: 9,
  rule: 11,
  erased: 12,
  starred: 13,
  view: 14,
  jotPreset: 15,
  todayPreset: 16,
  binDays: 17,
  terms: 18,
  lensSpace: 19,
  movedTo: 20,
  planner: 21,
  entry: 22,
  turning: 23,
  source: 24,
  category: 25,
  bookmarked: 26,
} as const;

/** The sentence of a refusal that Core threw, without what the runtime puts around it. */
export function sentenceOf(problem: unknown): string {
  const text = problem instanceof Error ? problem.message : String(problem);
  return text.split('\n')[0]!.replace(/^Error: /, '');
}

/** A random whole number below 2^52, which Core asks for where it needs chance. */
export function randomNumber(): number {
  const [high, low] = crypto.getRandomValues(new Uint32Array(2));
  return (high! % 0x100000) * 0x100000000 + low!;
}
