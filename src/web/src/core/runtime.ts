import { sentenceTold } from '../words/sentences';
import type { AccessBridge } from './accessBridge';
import type { AnswerBridge } from './answerBridge';
import type { AsideBridge } from './asideBridge';
import type { AssetBridge } from './assetBridge';
import type { BringBridge } from './bringBridge';
import type { DiagramBridge } from './diagramBridge';
import type { DocumentBridge } from './documentBridge';
import type { FindBridge } from './findBridge';
import type { PlotBridge } from './plotBridge';
import type { SeenBridge } from './seenBridge';
import type { FormulaBridge } from './formulaBridge';
import type { HandBridge } from './handBridge';
import type { HistoryBridge } from './historyBridge';
import type { LayerBridge } from './layerBridge';
import type { LetterBridge } from './letterBridge';
import type { LibraryBridge } from './libraryBridge';
import type { NotebookBridge } from './notebookBridge';
import type { PageBridge } from './pageBridge';
import type { PaperBridge } from './paperBridge';
import type { PenBridge } from './penBridge';
import type { PlacesBridge } from './placesBridge';
import type { PlannerBridge } from './plannerBridge';
import type { ShapeBridge } from './shapeBridge';
import type { SpotBridge } from './spotBridge';
import type { StampBridge } from './stampBridge';
import type { TableBridge } from './tableBridge';
import type { TextBridge } from './textBridge';
import type { ThingBridge } from './thingBridge';
import type { UndoBridge } from './undoBridge';

/** The functions that CalmQuill.Core.Browser exports. Batches and packets are bytes; an empty batch means that nothing was done. */
export interface Core {
  AccessBridge: AccessBridge;
  AnswerBridge: AnswerBridge;
  AsideBridge: AsideBridge;
  AssetBridge: AssetBridge;
  BringBridge: BringBridge;
  DiagramBridge: DiagramBridge;
  DocumentBridge: DocumentBridge;
  PageBridge: PageBridge;
  PenBridge: PenBridge;
  FindBridge: FindBridge;
  PlotBridge: PlotBridge;
  SeenBridge: SeenBridge;
  FormulaBridge: FormulaBridge;
  HandBridge: HandBridge;
  HistoryBridge: HistoryBridge;
  PlacesBridge: PlacesBridge;
  ShapeBridge: ShapeBridge;
  LayerBridge: LayerBridge;
  LetterBridge: LetterBridge;
  StampBridge: StampBridge;
  TableBridge: TableBridge;
  TextBridge: TextBridge;
  ThingBridge: ThingBridge;
  PaperBridge: PaperBridge;
  SpotBridge: SpotBridge;
  PlannerBridge: PlannerBridge;
  LibraryBridge: LibraryBridge;
  UndoBridge: UndoBridge;
  NotebookBridge: NotebookBridge;
}

interface DotnetModule {
  dotnet: {
    create(): Promise<{
      getAssemblyExports(name: string): Promise<{ CalmQuill: { Core: { Browser: Core } } }>;
      setModuleImports(name: string, functions: object): void;
    }>;
  };
}

let loading: Promise<Core> | undefined;
let loaded: Core | undefined;

/** The rules, where what is painted cannot wait for them; undefined until they are loaded. */
export const loadedCore = (): Core | undefined => loaded;

/** What the rules ask of script, by name. */
const answers = new Map<string, object>();
let answering: ((name: string, functions: object) => void) | undefined;

/** Says what the rules get when they ask script for something. */
export function answerCore(name: string, functions: object): void {
  answers.set(name, functions);
  answering?.(name, functions);
}

/** Loads the rules of the job, compiled to WebAssembly, once. */
export function loadCore(): Promise<Core> {
  loading ??= (async () => {
    const address = `${__CORE__}/dotnet.js`;
    const { dotnet } = (await import(/* @vite-ignore */ address)) as DotnetModule;
    const runtime = await dotnet.create();
    answering = (name, functions) => runtime.setModuleImports(name, functions);
    for (const [name, functions] of answers) answering(name, functions);
    const core = (await runtime.getAssemblyExports('CalmQuill.Core.Browser.dll')).CalmQuill.Core.Browser;
    loaded = core;
    return core;
  })();
  return loading;
}

export const documentKinds = { library: 1, notebook: 2, page: 3, aside: 4 } as const;
export type DocumentKind = keyof typeof documentKinds;

/** Whether it is written on: what is done there is taken back there, and leaves ink. */
export const isPaper = (kind: DocumentKind): boolean => kind === 'page' || kind === 'aside';

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
  habits: 29,
  aside: 30,
  told: 31,
  moment: 32,
} as const;

/** The sentence of a refusal that Core threw, without what the runtime puts around it, in the person's language. */
export function sentenceOf(problem: unknown): string {
  const text = problem instanceof Error ? problem.message : String(problem);
  return sentenceTold(text.replace(/^Error: /, ''));
}

/** A random whole number below 2^52, which Core asks for where it needs chance. */
export function randomNumber(): number {
  const [high, low] = crypto.getRandomValues(new Uint32Array(2));
  return (high! % 0x100000) * 0x100000000 + low!;
}
