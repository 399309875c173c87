import { useGrainOf } from '../page/ink/grain';
/** The functions that CalmQuill.Core.Browser exports. Batches and packets are bytes; an empty batch means that nothing was done. */
export interface Core {
  DocumentBridge: {
    WrittenAt(batch: Uint8Array): number;
    Start(replica: string, author: string): void;
    CorrectClock(serverNow: number, deviceNow: number): void;
    Rehearse(on: boolean): void;
    Open(kind: number): number;
    Close(handle: number): void;
    Apply(handle: number, batch: Uint8Array): number;
    EncodeState(handle: number): Uint8Array;
    Snapshot(handle: number): Uint8Array;
    RestampAhead(batch: Uint8Array, serverNow: number, now: number): Uint8Array;
    NumberOf(batch: Uint8Array): string;
    IdsOf(batches: Uint8Array): string[];
    About(batches: Uint8Array): string;
    PieceOf(batches: Uint8Array): Uint8Array;
    Renumber(refused: Uint8Array, waiting: Uint8Array, replica: string): Uint8Array;
    Number(): string;
    Renew(old: string, fresh: string): void;
  };
  PageBridge: {
    Copy(page: number, now: number): Uint8Array;
    BeginUndo(page: number): number;
    BeginRedo(page: number): number;
    Step(page: number, again: boolean): string[];
    Switch(page: number, operations: string[], on: boolean, now: number): Uint8Array;
    GoOn(page: number, most: number, now: number): Uint8Array;
    GiveUp(page: number): number;
    Steps(page: number): number;
    Build(): string;
    OpenSurface(page: number, painted: boolean): number;
    CloseSurface(page: number, surface: number): void;
    TakeChanged(page: number, surface: number, most: number): Uint8Array;
    BeginErase(page: number, radius: number, whole: boolean, kinds: number, layer: string): void;
    EraseAlong(page: number, spots: Float64Array): Uint8Array;
    EndErase(page: number, now: number): Uint8Array;
  };
  PenBridge: {
    Begin(pen: number[], stabilising: number): number;
    Add(stroke: number, samples: Int32Array): Uint8Array;
    Samples(stroke: number, from: number): number[];
    End(stroke: number): void;
    Keep(stroke: number, page: number, layer: string, startedAt: number, now: number): Uint8Array;
    Drop(stroke: number): void;
    LastMade(): string;
    Grain(stroke: number): number;
    GrainTile(level: number, points: number): Uint8Array;
    GrainOf(pen: number[], samples: Int32Array): number;
    OutlineOf(pen: number[], samples: Int32Array): Uint8Array;
    ResponseOf(pen: number[]): number[];
  };
  HandBridge: {
    Select(page: number, loop: Float64Array, share: number, kinds: number, layer: string): string[];
    At(page: number, x: number, y: number, reach: number, kinds: number, layer: string): string[];
    LockedAt(page: number, x: number, y: number, reach: number): string[];
    OpenOf(page: number, items: string[]): string[];
    SetWidth(page: number, items: string[], width: number, now: number): Uint8Array;
    SelectAll(page: number, kinds: number, layer: string): string[];
    AllOpen(page: number): string[];
    Keep(page: number, items: string[]): number;
    IsKept(page: number, number: number): boolean;
    ShiftKept(page: number, number: number, dx: number, dy: number, now: number): Uint8Array;
    SetKept(page: number, number: number, fields: number[], values: string[], now: number): Uint8Array;
    BoundsOf(page: number, items: string[]): number[];
    About(page: number, items: string[]): string;
    Remove(page: number, items: string[], now: number): Uint8Array;
    RemoveFramed(page: number, items: string[], now: number): Uint8Array;
    Shift(page: number, items: string[], dx: number, dy: number, now: number): Uint8Array;
    Transform(page: number, items: string[], matrix: number[], now: number): Uint8Array;
    Set(page: number, items: string[], fields: number[], values: string[], now: number): Uint8Array;
    Order(page: number, items: string[], front: boolean, now: number): Uint8Array;
    Cut(page: number, items: string[]): Uint8Array;
    BoundsOfPiece(piece: Uint8Array): number[];
    BeginLay(page: number, piece: Uint8Array, dx: number, dy: number, layer: string): number;
    LayMore(page: number, most: number, now: number): Uint8Array;
    GiveUpLaying(page: number): number;
    LastLaid(): string[];
    BeginRoom(page: number, line: number, sideways: boolean): number;
    RoomItems(): string[];
    RoomLeaving(by: number, end: number): string[];
    EndRoomCarrying(page: number, by: number, leaving: string[], now: number): Uint8Array;
    EndRoom(page: number, by: number, now: number): Uint8Array;
    EvenLines(page: number, items: string[], strength: number, words: boolean, height: boolean): string;
    DoEvenLines(
      page: number,
      items: string[],
      strength: number,
      words: boolean,
      height: boolean,
      now: number,
    ): Uint8Array;
    Scratched(page: number, stroke: number): string[];
    RetracePlan(page: number, items: string[]): string;
    RetracePart(page: number, item: string, after: number, takes: number): Uint8Array;
    LoupeStep(page: number, paper: string, box: number[], begin: number, way: number): number[];
  };
  ShapeBridge: {
    Tidy(
      stroke: number,
      page: number,
      paper: string,
      join: number,
      printed: number,
      now: number,
      least: number,
    ): string;
    Between(kind: number, x1: number, y1: number, x2: number, y2: number, even: boolean): string;
    Join(page: number, shape: string, without: string[], paper: string, join: number, printed: number): string;
    Outline(shape: string, pen: number[]): Uint8Array;
    Add(
      page: number,
      shape: string,
      pen: number[],
      fill: number,
      replaces: string[],
      layer: string,
      now: number,
    ): Uint8Array;
    AddTidied(
      stroke: number,
      page: number,
      shape: string,
      pen: number[],
      fill: number,
      replaces: string[],
      layer: string,
      startedAt: number,
      now: number,
    ): Uint8Array;
    Handles(page: number, item: string): string;
    Drag(page: number, item: string, handle: number, x: number, y: number, join: number): string;
    AsDrawn(page: number, item: string): string;
    Change(page: number, item: string, shape: string, now: number): Uint8Array;
    Fill(
      page: number,
      paper: string,
      x: number,
      y: number,
      gap: number,
      colour: number,
      layer: string,
      now: number,
    ): Uint8Array;
    ClosedAt(page: number, x: number, y: number): string;
    Keep(round: boolean, gx: number, gy: number, angle: number, size: number, x: number, y: number): number[];
    EdgeAt(
      round: boolean,
      gx: number,
      gy: number,
      angle: number,
      size: number,
      x: number,
      y: number,
      reach: number,
    ): number[];
    Resting(angle: number): number;
  };
  LayerBridge: {
    All(page: number): string;
    Counts(page: number): number[];
    Add(page: number, layer: string, name: string, after: string, now: number): Uint8Array;
    Move(page: number, layer: string, after: string, now: number): Uint8Array;
    Set(page: number, layer: string, field: number, value: string, now: number): Uint8Array;
  };
  PaperBridge: {
    Draw(paper: string, page: number, notebook: number, notebookId: string, pageId: string): string;
    Sheet(paper: string, page: number): number[];
    StandingOut(colour: number, ground: number): number;
    Cover(design: string, colour: string, name: string): string;
    Choices(): string;
    Read(paper: string): string;
  };
  SpotBridge: {
    Fit(page: number, factor: number, dx: number, dy: number, now: number): Uint8Array;
    Turn(page: number, height: number, now: number): Uint8Array;
    Spots(page: number): string;
    Add(
      page: number,
      spot: string,
      kind: number,
      area: number[],
      items: string[],
      fields: number[],
      values: string[],
      now: number,
    ): Uint8Array;
    Set(page: number, spot: string, fields: number[], values: string[], now: number): Uint8Array;
    Move(page: number, spot: string, dx: number, dy: number, now: number): Uint8Array;
    Cut(page: number, area: number[], spot: string): Uint8Array;
  };
  PlannerBridge: {
    Preview(settings: string): string;
    Languages(): string;
    Make(
      notebook: number,
      id: string,
      settings: string,
      papers: string[],
      colours: string[],
      random: number,
      now: number,
    ): Uint8Array;
    TakeCalendar(notebook: number, id: string, ids: string[], values: string[], now: number): Uint8Array;
    Taken(): number;
    NoteTitle(notebook: number, id: string, entry: string): string;
    Entries(notebook: number): string;
    Settings(notebook: number, id: string): string;
    PageId(notebook: number, id: string, page: string): string;
    LayWeb(count: number, links: number[], groups: number[]): number[];
  };
  LibraryBridge: {
    TakeChanges(library: number, all: boolean): string;
    Tags(library: number): string;
    Registers(library: number, property: number): string;
    Often(library: number): string;
    Place(library: number, node: string, kind: number, parent: string, after: string, now: number): Uint8Array;
    Make(
      library: number,
      node: string,
      kind: number,
      parent: string,
      name: string,
      properties: number[],
      values: string[],
      now: number,
    ): Uint8Array;
    Copy(library: number, node: string, parent: string, seed: string, now: number): Uint8Array;
    CopiedNotebooks(library: number, node: string, parent: string, seed: string): string[];
    Erase(library: number, nodes: string[], now: number): Uint8Array;
    SetProperty(document: number, target: string, property: number, value: string, now: number): Uint8Array;
    SetTag(document: number, target: string, tag: string, on: boolean, now: number): Uint8Array;
    MergeTags(library: number, from: string, into: string, now: number): Uint8Array;
    Visit(library: number, space: string, notebook: string, now: number): Uint8Array;
    Ask(
      library: number,
      rule: string,
      facts: string,
      notebooks: number[],
      notebookIds: string[],
      now: number,
      clock: number[],
    ): string;
    Fold(text: string): string;
  };
  UndoBridge: {
    TakeNote(on: boolean): void;
    Last(): Uint8Array;
    Back(document: number, changes: Uint8Array, now: number): Uint8Array;
  };
  NotebookBridge: {
    Outline(notebook: number, withBinned: boolean): string;
    TakeOutline(notebook: number, had: number): string;
    Place(notebook: number, entry: string, kind: number, parent: string, after: string, now: number): Uint8Array;
    Make(
      notebook: number,
      entry: string,
      kind: number,
      parent: string,
      after: string,
      title: string,
      paper: string,
      now: number,
    ): Uint8Array;
    TakeIn(
      notebook: number,
      id: string,
      from: number,
      entries: string[],
      parents: string[],
      afters: string[],
      now: number,
    ): Uint8Array;
    Copy(
      target: number,
      source: number,
      entry: string,
      parent: string,
      withTags: boolean,
      seed: string,
      now: number,
    ): Uint8Array;
    CopyWhole(
      target: number,
      to: string,
      source: number,
      from: string,
      withTags: boolean,
      seed: string,
      now: number,
    ): Uint8Array;
    CopiedPages(source: number, entry: string, from: string, to: string, seed: string): string[];
    LetGo(from: number, notebook: number, id: string, entries: string[], now: number): Uint8Array;
    PlaceIsThere(notebook: number, entry: string): boolean;
    Erase(notebook: number, entries: string[], now: number): Uint8Array;
    TodayPage(notebook: number, id: string, day: string): string;
    Read(notebook: number, target: string, property: number): string;
  };
}

interface DotnetModule {
  dotnet: {
    create(): Promise<{ getAssemblyExports(name: string): Promise<{ CalmQuill: { Core: { Browser: Core } } }> }>;
  };
}

let loading: Promise<Core> | undefined;

/** Loads the rules of the job, compiled to WebAssembly, once. */
export function loadCore(): Promise<Core> {
  loading ??= (async () => {
    const address = `${__CORE__}/dotnet.js`;
    const { dotnet } = (await import(/* @vite-ignore */ address)) as DotnetModule;
    const runtime = await dotnet.create();
    const core = (await runtime.getAssemblyExports('CalmQuill.Core.Browser.dll')).CalmQuill.Core.Browser;
    useGrainOf(core);
    return core;
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
  tray: 27,
  palettes: 28,
  hand: 29,
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
