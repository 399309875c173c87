import { useMemo, useRef, useState } from 'react';
import type { Personal } from '../../data/usePersonal';
import { usualHabits } from '../../model/habits';
import { firstTray, type Pen } from '../../model/pens';
import { phone } from '../../ui/useMedia';
import type { HeldTool } from '../hand/hand';
import type { Guide } from '../hand/things';
import { handToolOf, handTools } from './handTools';
import type { Tool, Tools } from '../hand/tool';
import { usePens } from './usePens';
import { useToolSettings } from './useToolSettings';

/** What lies on the page, and what is written on, is this window's: it is there after a reload. */
const guideKey = 'quill.guide';
const layersKey = 'quill.layers';
/** What stays unfolded while one writes. */
const staying: ReadonlySet<string> = new Set(['layers']);

/**
 * @param notebook The notebook that is open, which may have pens of its own.
 * @param first The number of the pen to begin with, as a jot names it; none where nothing was said of writing.
 */
export function useTools(personal: Personal | undefined, notebook: string, first: string | null): Tools {
  const [held, setHeld] = useState('pen');
  const [open, unfold] = useState<string>();
  const penBefore = useRef(1);
  const pens = usePens(personal, notebook, first, (from) => {
    penBefore.current = from;
    setHeld('pen');
    unfold('pen');
  });
  const { settings, change } = useToolSettings();
  const [guide, setGuide] = useState(() => readKept<Guide | undefined>(guideKey, undefined));
  const [layers, setLayers] = useState(() => readKept<Record<string, string>>(layersKey, {}));
  // A screen as narrow as a phone's is for reading first: the tray would lie over the page.
  const [reading, setReading] = useState(() => first === null && matchMedia(phone).matches);
  const [zoomLocked, setZoomLocked] = useState(false);
  const [turnedOn, setTurnedOn] = useState<ReadonlySet<string>>(new Set());
  const { tray, chosen } = pens;
  const pen = useSame(tray[chosen] ?? firstTray[0]!);
  const tool = useMemo(() => holding(handToolOf(held), settings, pen), [held, settings, pen]);
  const standIns = useMemo(() => standInsOf(settings, pen), [settings, pen]);

  const choose = (index: number) => {
    if (index !== chosen) penBefore.current = chosen;
    pens.choose(index);
    setHeld('pen');
    unfold(undefined);
  };
  const toggle = (name: string) => {
    setHeld(held === name ? 'pen' : name);
    unfold(undefined);
  };
  return {
    ...pens,
    choose,
    removePen: () => {
      pens.removePen();
      unfold(undefined);
    },
    held,
    tool,
    standIns,
    settingsOf: <S extends object>({ name }: Tool<S>) => settings[name] as S,
    change,
    habits: personal?.habits ?? usualHabits,
    changeHabits: (changed) => personal?.setHabits(changed),
    guide,
    setGuide: (laid) => {
      sessionStorage.setItem(guideKey, JSON.stringify(laid ?? null));
      setGuide(laid);
    },
    layerOf: (page) => layers[page] ?? '',
    setLayer: (page, layer) => {
      const changed = { ...layers, [page]: layer };
      sessionStorage.setItem(layersKey, JSON.stringify(changed));
      setLayers(changed);
    },
    reading,
    setReading,
    zoomLocked,
    setZoomLocked,
    isOn: (name) => turnedOn.has(name),
    turn: (name, on) => setTurnedOn(new Set([...turnedOn].filter((one) => one !== name).concat(on ? name : []))),
    open,
    unfold,
    fold: () => unfold((standing) => (standing && staying.has(standing) ? standing : undefined)),
    press: (index) => {
      choose(index);
      if (index === chosen && held === 'pen' && open !== 'pen') unfold('pen');
    },
    pressTool: ({ name, unfolds }) => {
      setHeld(name);
      unfold(held === name ? (open === name ? undefined : name) : unfolds ? name : undefined);
    },
    toggle,
    swap: () => (held === 'pen' ? choose(Math.min(penBefore.current, tray.length - 1)) : toggle('pen')),
    used: (name) => {
      const { back = false } = (settings[name] ?? {}) as { back?: boolean };
      if (back && held === name) toggle('pen');
    },
    picked: (colour) => {
      toggle('pen');
      if (colour) pens.changePen({ ...tray[chosen]!, colour: colour.slice(0, 7) });
    },
  };
}

function holding(tool: Tool, settings: Readonly<Record<string, object>>, pen: Pen): HeldTool {
  return tool.hold(settings[tool.name]!, pen);
}

/** By the tool's name, and by what a finger is said to do. */
function standInsOf(settings: Readonly<Record<string, object>>, pen: Pen): ReadonlyMap<string, HeldTool> {
  return new Map(
    handTools.flatMap((tool) => {
      const { standIn } = tool;
      const held = holding(tool, settings, pen);
      return standIn
        ? [
            [tool.name, held],
            [standIn.finger, held],
          ]
        : [];
    }),
  );
}

/** A value that is the same as long as it says the same, however often it is read anew. */
function useSame<T>(value: T): T {
  const says = JSON.stringify(value);
  return useMemo(() => value, [says]);
}

function readKept<T>(key: string, otherwise: T): T {
  try {
    return (JSON.parse(sessionStorage.getItem(key) ?? 'null') as T | null) ?? otherwise;
  } catch {
    return otherwise;
  }
}
