import { useRef, useState } from 'react';
import { say } from '../../ui/saying';
import { useAct } from '../../data/doing';
import type { Personal } from '../../data/usePersonal';
import { type EraserTool, type FillTool, type Guide, type LoopTool, type ShapeTool, type Tool } from '../hand/tool';
import { type HandSettings, usualHand } from '../../model/habits';
import { withRecent } from '../../model/palettes';
import { firstTray, mostPens, newPen, type Pen } from '../../model/pens';

export type HeldKind = 'pen' | 'eraser' | 'loop' | 'mark' | 'shape' | 'fill' | 'room' | 'curtain' | 'pick';
/** Panels of the tray that are no tools in the hand. */
export type Panel = 'layers' | 'guide' | 'hand';

/** What is in the hand: the pens of the tray, the other tools, and which settings are unfolded. One hand, however many pages lie open. */
export interface Tools {
  tray: Pen[];
  chosen: number;
  held: HeldKind;
  eraser: EraserTool;
  loop: LoopTool;
  shape: ShapeTool;
  fill: FillTool;
  room: { sideways: boolean; toNext: boolean };
  guide: Guide | undefined;
  settings: HandSettings;
  /** The kind of mark that a press puts down. */
  mark: string;
  /** The layer that is written on, by page. */
  layerOf: (page: string) => string;
  reading: boolean;
  zoomLocked: boolean;
  /** Whether the settings of what is in the hand are unfolded, or which panel. */
  unfolded: boolean;
  panel: Panel | undefined;
  loupe: boolean;
  retrace: boolean;
  tool: Tool;
  choose: (index: number) => void;
  /** The pen that was in the hand before. */
  swap: () => void;
  press: (index: number) => void;
  /** Takes a tool up; when it is in the hand already, unfolds its settings. */
  pressTool: (kind: HeldKind) => void;
  changePen: (pen: Pen, keepRecent?: boolean) => void;
  addPen: () => void;
  removePen: () => void;
  movePen: (by: number) => void;
  change: <K extends 'eraser' | 'loop' | 'shape' | 'fill' | 'room'>(tool: K, change: Partial<Tools[K]>) => void;
  changeSettings: (change: Partial<HandSettings>) => void;
  setGuide: (guide: Guide | undefined) => void;
  changeMark: (mark: string) => void;
  setLayer: (page: string, layer: string) => void;
  toggle: (kind: HeldKind) => void;
  togglePanel: (panel: Panel) => void;
  openPanel: (panel: Panel) => void;
  setReading: (on: boolean) => void;
  setZoomLocked: (on: boolean) => void;
  setLoupe: (on: boolean) => void;
  setRetrace: (on: boolean) => void;
  /** Back to the pen, where the eraser is set to. */
  erased: () => void;
  picked: (colour: string | undefined) => void;
  fold: () => void;
}

interface ToolSettings {
  eraser: EraserTool;
  loop: LoopTool;
  shape: ShapeTool;
  fill: FillTool;
  room: { sideways: boolean; toNext: boolean };
}

const firstSettings: ToolSettings = {
  eraser: { way: 'touched', size: 300, onlyHighlighter: false, onlyLayer: false, back: false },
  loop: { box: false, share: 0.5, kinds: 15, onlyLayer: false },
  shape: { kind: 'free', fill: '', fillOpacity: 0.35 },
  fill: { colour: '#e3b23c', opacity: 0.35, gap: 200 },
  room: { sideways: false, toNext: true },
};
const settingsKey = 'quill.tools';
/** What lies on the page, and what is written on, is this window's: it is there after a reload. */
const guideKey = 'quill.guide';
const layersKey = 'quill.layers';

/** A screen that is narrower, as a phone's, is for reading first: the tray would lie over the page. */
const phone = '(max-width: 639px)';

/**
 * @param notebook The notebook that is open, which may have pens of its own.
 * @param first The number of the pen to begin with, as a jot names it; none where nothing was said of writing.
 */
export function useTools(personal: Personal | undefined, notebook: string, first: string | null): Tools {
  const tray = personal?.tray(notebook) ?? firstTray;
  const [chosen, setChosen] = useState(Number(first) in tray ? Number(first) : 0);
  const before = useRef({ pen: 1, held: 'pen' as HeldKind });
  const [held, setHeld] = useState<HeldKind>('pen');
  const [kept, setKept] = useState(loadSettings);
  const [guide, setGuide] = useState(() => readKept<Guide | undefined>(guideKey, undefined));
  const [mark, setMark] = useState('ask');
  const [layers, setLayers] = useState(() => readKept<Record<string, string>>(layersKey, {}));
  const [reading, setReading] = useState(() => first === null && matchMedia(phone).matches);
  const [zoomLocked, setZoomLocked] = useState(false);
  const [unfolded, setUnfolded] = useState(false);
  const [panel, setPanel] = useState<Panel>();
  const [loupe, setLoupe] = useState(false);
  const [retrace, setRetrace] = useState(false);
  const act = useAct();
  const own = personal?.hasOwnTray(notebook) ? notebook : undefined;
  const at = Math.min(chosen, tray.length - 1);
  const setTray = (pens: Pen[]) => personal?.setTray(pens, own);

  const take = (kind: HeldKind) => {
    before.current.held = held === kind ? before.current.held : held;
    setHeld(kind);
    setPanel(undefined);
  };
  const choose = (index: number) => {
    if (index !== at) before.current.pen = at;
    setChosen(index);
    take('pen');
  };
  return {
    tray,
    chosen: at,
    held,
    ...kept,
    guide,
    settings: personal?.hand ?? usualHand,
    mark,
    layerOf: (page) => layers[page] ?? '',
    reading,
    zoomLocked,
    unfolded,
    panel,
    loupe,
    retrace,
    tool: toolOf(reading, held, tray[at]!, kept),
    choose,
    swap: () => (held === 'pen' ? choose(Math.min(before.current.pen, tray.length - 1)) : take('pen')),
    press: (index) => {
      setUnfolded(index === at && held === 'pen' && !panel ? !unfolded : false);
      choose(index);
    },
    pressTool: (kind) => {
      setUnfolded(held === kind && !panel ? !unfolded : kind === 'mark' || kind === 'shape');
      take(kind);
    },
    changePen: (pen, keepRecent) => {
      setTray(tray.map((one, i) => (i === at ? pen : one)));
      if (keepRecent && personal) personal.setPalettes(withRecent(personal.palettes, pen.colour));
    },
    addPen: () => {
      if (tray.length >= mostPens)
        return say(`The tray holds ${mostPens} pens. Take one out first; a notebook can have pens of its own.`);
      setTray([...tray.slice(0, at + 1), { ...(tray[at] ?? newPen('ball')) }, ...tray.slice(at + 1)]);
      choose(at + 1);
      setUnfolded(true);
    },
    removePen: () => {
      if (tray.length < 2) return;
      act('Took the pen out of the tray.', () => setTray(tray.filter((_, i) => i !== at)));
      setChosen(Math.max(0, at - 1));
      setUnfolded(false);
    },
    movePen: (by) => {
      const to = at + by;
      if (to < 0 || to >= tray.length) return;
      const moved = [...tray];
      [moved[at], moved[to]] = [moved[to]!, moved[at]!];
      setTray(moved);
      setChosen(to);
    },
    change: (tool, change) => {
      const changed = { ...kept, [tool]: { ...kept[tool], ...change } };
      localStorage.setItem(settingsKey, JSON.stringify(changed));
      setKept(changed);
    },
    changeSettings: (change) => personal?.setHand(change),
    setGuide: (laid) => {
      sessionStorage.setItem(guideKey, JSON.stringify(laid ?? null));
      setGuide(laid);
    },
    changeMark: setMark,
    setLayer: (page, layer) => {
      const changed = { ...layers, [page]: layer };
      sessionStorage.setItem(layersKey, JSON.stringify(changed));
      setLayers(changed);
    },
    toggle: (kind) => take(held === kind ? 'pen' : kind),
    togglePanel: (which) => {
      setUnfolded(false);
      setPanel(panel === which ? undefined : which);
    },
    openPanel: (which) => {
      setUnfolded(false);
      setPanel(which);
    },
    setReading,
    setZoomLocked,
    setLoupe,
    setRetrace,
    erased: () => kept.eraser.back && held === 'eraser' && take('pen'),
    picked: (colour) => {
      take('pen');
      if (colour) setTray(tray.map((one, i) => (i === at ? { ...one, colour: colour.slice(0, 7) } : one)));
    },
    fold: () => {
      setUnfolded(false);
      setPanel((standing) => (standing === 'layers' ? standing : undefined));
    },
  };
}

function toolOf(reading: boolean, held: HeldKind, pen: Pen, { eraser, loop, shape, fill, room }: ToolSettings): Tool {
  if (reading) return { name: 'read' };
  switch (held) {
    case 'pen':
      return { name: 'pen', pen };
    case 'eraser':
      return { name: 'eraser', ...eraser };
    case 'loop':
      return { name: 'loop', ...loop };
    case 'shape':
      return { name: 'shape', pen, ...shape };
    case 'fill':
      return { name: 'fill', ...fill };
    case 'room':
      return { name: 'room', ...room };
    default:
      return { name: held };
  }
}

function readKept<T>(key: string, otherwise: T): T {
  try {
    return (JSON.parse(sessionStorage.getItem(key) ?? 'null') as T | null) ?? otherwise;
  } catch {
    return otherwise;
  }
}

function loadSettings(): ToolSettings {
  try {
    const kept = JSON.parse(localStorage.getItem(settingsKey) ?? '{}') as Partial<ToolSettings>;
    return {
      eraser: { ...firstSettings.eraser, ...kept.eraser },
      loop: { ...firstSettings.loop, ...kept.loop },
      shape: { ...firstSettings.shape, ...kept.shape },
      fill: { ...firstSettings.fill, ...kept.fill },
      room: { ...firstSettings.room, ...kept.room },
    };
  } catch {
    return firstSettings;
  }
}
