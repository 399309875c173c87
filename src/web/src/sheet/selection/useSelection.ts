import { t } from '@lingui/core/macro';
import { useEffect, useMemo, useRef, useState } from 'react';
import { sentenceOf } from '../../core/runtime';
import { say } from '../../ui/saying';
import type { Area } from '../../model/drawing';
import type { OpenDocument } from '../../sync/openDocument';
import { useWorkspace } from '../../data/useWorkspace';
import { itemKinds, type Taken } from '../hand/things';
import type { Blotter } from '../blotter/blotter';
import { identity, type Matrix } from '../ink/floatInk';
import { type InkItem, paintItem } from '../ink/packet';
import { type LongWorker, stillAtWork } from '../blotter/longWork';
import { keepPiece, keepWords, keptPiece, type Piece } from './clipboard';

/** What may be done to the size and direction of things; as Core numbers it. */
export const reshapings = { movedOnly: 0, inProportion: 1, freely: 2 } as const;
export type Reshaping = (typeof reshapings)[keyof typeof reshapings];

/** What can be said of a selection; what differs among its things is left out. */
export interface About {
  count: number;
  kinds: number;
  locked: boolean;
  grouped: boolean;
  /** The most that any of it allows. */
  reshaping: Reshaping;
  /** Whether all of it allows the same. */
  alike: boolean;
  colour?: string;
  width?: string;
  pen?: string;
  line?: string;
  fill?: string;
  /** Of boxes of text: the line round them, and the room within, 0.01 mm. */
  edge?: string;
  edgeWidth?: string;
  corner?: string;
  padding?: string;
  layer?: string;
}

const nothing: About = {
  count: 0,
  kinds: 0,
  locked: false,
  grouped: false,
  reshaping: reshapings.movedOnly,
  alike: true,
};

/** What can be said anew of what is selected, by its number in Core. */
export const fields = {
  colour: 1,
  width: 2,
  pen: 3,
  line: 4,
  fill: 5,
  layer: 7,
  group: 9,
  locked: 10,
  edge: 13,
  edgeWidth: 14,
  corner: 15,
  padding: 16,
} as const;
const duplicateBy = 500;
/** So many selected items are kept by Core, and not named to it again and again. */
const fewKept = 200;
/** More lines are no table that somebody drew. */
const mostDrawn = 200;
const lockedSentence = t`It is locked in its place. “Unlock” frees it.`;
/** Pictures that are copied are so fine, pixels a millimetre. */
const pixelsAMillimetre = 8;
const mostPixels = 6_000;

export interface EvenWish {
  strength: number;
  words: boolean;
  height: boolean;
}

/** What can be done with what was selected. */
export interface Selection {
  taken: Taken;
  about: About;
  erase: () => void;
  move: (dx: number, dy: number) => void;
  transform: (matrix: Matrix) => void;
  /** Shows what a matrix would do, or nothing more. */
  preview: (matrix: Matrix | undefined) => void;
  restyle: (field: keyof typeof fields, value: string) => void;
  order: (front: boolean) => void;
  copy: () => void;
  cut: () => void;
  duplicate: () => void;
  copyPicture: () => void;
  group: (on: boolean) => void;
  lock: (on: boolean) => void;
  mirror: (across: boolean) => void;
  previewEven: (wish: EvenWish | undefined) => void;
  even: (wish: EvenWish) => void;
  /** Makes lines that were drawn for a table one; undefined where they are none. */
  asTable: (() => void) | undefined;
  /** A square or circle as it was drawn, before it was made even; undefined where there is none. */
  loosen: (() => void) | undefined;
  leave: () => void;
}

interface Given {
  blotter: Blotter | undefined;
  page: OpenDocument;
  layer: string;
  taken: Taken | undefined;
  setTaken: (taken: Taken | undefined) => void;
  worker: LongWorker;
}

export function useSelection({ blotter, page, layer, taken, setTaken, worker }: Given): {
  selection: Selection | undefined;
  paste: (piece?: Piece, to?: { dx: number; dy: number }) => void;
} {
  const { core, assets } = useWorkspace();
  // What is said of very many things comes after the page shows them.
  const made = page.getVersion();
  const [version, setVersion] = useState(made);
  useEffect(() => (blotter ? blotter.ink.whenSeen(() => setVersion(made)) : setVersion(made)), [blotter, made]);
  const about = useMemo(
    () =>
      taken && taken.items.length > 0
        ? (JSON.parse(core.HandBridge.About(page.handle, taken.items)) as About)
        : undefined,
    [core, page, taken, version],
  );

  // Things that others move or take away while they are selected.
  useEffect(() => {
    if (!taken || taken.items.length === 0) return;
    const area = core.HandBridge.BoundsOf(page.handle, taken.items);
    if (area.length === 0) setTaken(undefined);
    else if (area.some((edge, i) => edge !== taken.area[i])) setTaken({ ...taken, area: area as unknown as Area });
  }, [version]);

  const select = (items: string[]) =>
    setTaken(
      items.length > 0 ? { items, area: core.HandBridge.BoundsOf(page.handle, items) as unknown as Area } : undefined,
    );

  /** Lays a piece down, in the middle of what is seen unless it is said where. */
  const paste = (piece = keptPiece(core), to?: { dx: number; dy: number }) => {
    if (!piece || !blotter) return say(t`Nothing was copied yet.`);
    const middle = blotter.view.middle;
    const dx = Math.round(to?.dx ?? middle.x - (piece.area[0] + piece.area[2]) / 2);
    const dy = Math.round(to?.dy ?? middle.y - (piece.area[1] + piece.area[3]) / 2);
    if (worker.busy()) return say(stillAtWork);
    // What it shows comes along, when it can.
    void assets
      .carry(core.ThingBridge.AssetsOf(piece.bytes), piece.space, page.space)
      .catch((error: unknown) => say(sentenceOf(error)));
    void lay(piece.bytes, dx, dy).catch((error: unknown) => say(sentenceOf(error)));
  };

  /** The first slice is laid, and selected, before anything is waited for. */
  const lay = async (bytes: Uint8Array, dx: number, dy: number) => {
    const all = core.HandBridge.BeginLay(page.handle, bytes, dx, dy, layer);
    const laid = worker.run(
      t`Laying it down`,
      all,
      (most) => page.performAll((handle, now) => core.HandBridge.LayMore(handle, most, now)),
      true,
    );
    select(core.HandBridge.LastLaid(page.handle));
    if (await laid) return select(core.HandBridge.LastLaid(page.handle));
    setTaken(undefined);
    await worker.runBegun(t`Taking it away again`, core.HandBridge.GiveUpLaying(page.handle));
  };

  const ids = taken?.items;
  const kept = useRef<{ ids: string[]; number: number }>(undefined);
  useEffect(() => {
    blotter?.ink.anticipate(ids ?? []);
    if (!ids || ids.length < fewKept) return;
    kept.current = { ids, number: core.HandBridge.Keep(page.handle, ids) };
  }, [core, page, blotter, ids]);
  /** Does something to these by the number under which Core keeps just them, so that it need not be told their names, or where it does not by their names. */
  const byNumber = (
    handle: number,
    asKept: (number: number) => Uint8Array,
    byName: (names: string[]) => Uint8Array,
  ): Uint8Array =>
    kept.current?.ids === ids && kept.current && core.HandBridge.IsKept(handle, kept.current.number)
      ? asKept(kept.current.number)
      : byName(ids ?? []);

  if (!taken) return { selection: undefined, paste };
  const { items } = taken;
  const perform = (make: (handle: number, now: number) => Uint8Array) => page.perform(make);
  const foresee = (how: (item: InkItem) => InkItem, make: (handle: number, now: number) => Uint8Array) =>
    blotter ? blotter.ink.foresee(items, how, () => perform(make)) : perform(make);
  const loose = items.length === 1 && !about?.locked ? core.ShapeBridge.AsDrawn(page.handle, items[0]!) : '';
  // Lines and rectangles can be the rules of a table, with what is written between them.
  const isDrawn =
    ((about?.kinds ?? 0) & itemKinds.shape) !== 0 && !about?.locked && items.length > 1 && items.length <= mostDrawn
      ? core.TableBridge.IsDrawn(page.handle, items)
      : false;
  const ink = (): InkItem[] => blotter?.dry.itemsOf(items) ?? [];
  let floating: InkItem[] | undefined;
  const done = (act: () => void) => {
    try {
      act();
    } catch (error) {
      say(sentenceOf(error));
    }
    blotter?.putDown();
    floating = undefined;
  };
  /** Connectors whose things are gone follow the hand. */
  const letGo = () => {
    if (((about?.kinds ?? 0) & itemKinds.shape) !== 0 && items.length < fewKept)
      page.performTogether((handle, now) => core.DiagramBridge.LetGo(handle, items, now));
  };
  const copy = () => {
    keepPiece(core, core.HandBridge.Cut(page.handle, items), page.space);
    keepWords(items.length === 1 ? (core.TableBridge.Sheet(page.handle, items[0]!, [])[0] ?? '') : '');
    say(t`Copied. It can be laid down on any page.`);
  };
  const selection: Selection = {
    taken,
    about: about ?? nothing,
    erase: () => {
      if (about?.locked) return say(lockedSentence);
      perform((handle, now) => core.HandBridge.Remove(handle, items, now));
      setTaken(undefined);
    },
    move: (dx, dy) =>
      done(() => {
        if (about?.locked) return say(lockedSentence);
        letGo();
        foresee(shifted(Math.round(dx), Math.round(dy)), (handle, now) =>
          byNumber(
            handle,
            (number) => core.HandBridge.ShiftKept(handle, number, Math.round(dx), Math.round(dy), now),
            (names) => core.HandBridge.Shift(handle, names, Math.round(dx), Math.round(dy), now),
          ),
        );
      }),
    transform: (matrix) =>
      done(() => {
        letGo();
        page.performTogether((handle, now) => core.HandBridge.Transform(handle, items, matrix, now));
      }),
    preview: (matrix) => {
      if (!matrix) {
        floating = undefined;
        return blotter?.putDown();
      }
      const first = !floating;
      floating ??= ink();
      const parts =
        about?.alike && about.reshaping === reshapings.freely
          ? [{ items: floating, matrix }]
          : inSteps(floating, core.HandBridge.Reshaped(page.handle, items, matrix));
      if (first) blotter?.lift(items, parts);
      else blotter?.float.show(parts);
    },
    restyle: (field, value) =>
      done(() =>
        field === 'width'
          ? page.performTogether((handle, now) => core.HandBridge.SetWidth(handle, items, Number(value), now))
          : foresee(field === 'colour' ? coloured(value) : (item) => item, (handle, now) =>
              byNumber(
                handle,
                (number) => core.HandBridge.SetKept(handle, number, [fields[field]], [value], now),
                (names) => core.HandBridge.Set(handle, names, [fields[field]], [value], now),
              ),
            ),
      ),
    order: (front) => perform((handle, now) => core.HandBridge.Order(handle, items, front, now)),
    copy,
    cut: () => {
      if (about?.locked) return say(lockedSentence);
      copy();
      perform((handle, now) => core.HandBridge.Remove(handle, items, now));
      setTaken(undefined);
    },
    duplicate: () => {
      const piece = core.HandBridge.Cut(page.handle, items);
      paste({ bytes: piece, area: taken.area, space: page.space }, { dx: duplicateBy, dy: duplicateBy });
    },
    copyPicture: () =>
      void copyPicture(ink(), taken.area).then(
        () => say(t`Copied as a picture.`),
        () => say(t`The picture could not be copied: the browser did not allow it.`),
      ),
    group: (on) =>
      perform((handle, now) =>
        core.HandBridge.Set(handle, items, [fields.group], [on ? crypto.randomUUID() : ''], now),
      ),
    lock: (on) => {
      perform((handle, now) => core.HandBridge.Set(handle, items, [fields.locked], [on ? '1' : ''], now));
      if (on) setTaken(undefined);
    },
    mirror: (across) => {
      const [left, top, right, bottom] = taken.area;
      selection.transform(across ? [-1, 0, 0, 1, left + right, 0] : [1, 0, 0, -1, 0, top + bottom]);
    },
    previewEven: (wish) => {
      if (!wish) return blotter?.putDown();
      const steps = core.HandBridge.EvenLines(page.handle, items, wish.strength, wish.words, wish.height);
      blotter?.lift(items, inSteps(ink(), steps));
    },
    even: (wish) => {
      void page.performAll((handle, now) =>
        core.HandBridge.MakeLinesEven(handle, items, wish.strength, wish.words, wish.height, now),
      );
      blotter?.putDown();
      select(items);
    },
    asTable: isDrawn
      ? () =>
          done(() => {
            page.performTogether((handle, now) => core.TableBridge.FromDrawn(handle, items, layer, now));
            select([core.TableBridge.Made()]);
          })
      : undefined,
    loosen: loose
      ? () => done(() => perform((handle, now) => core.ShapeBridge.Change(handle, items[0]!, loose, now)))
      : undefined,
    leave: () => {
      blotter?.putDown();
      setTaken(undefined);
    },
  };
  return { selection, paste };
}

/** Things as steps of Core would put them; those that are in none stay where they are. */
function inSteps(ink: InkItem[], told: string): { items: InkItem[]; matrix: Matrix }[] {
  const steps = JSON.parse(told) as { items: string[]; matrix: Matrix }[];
  const all = new Map(ink.map((item) => [item.id, item]));
  const moved = new Set(steps.flatMap((step) => step.items));
  return [
    ...steps.map((step) => ({ items: step.items.flatMap((id) => all.get(id) ?? []), matrix: step.matrix })),
    { items: ink.filter((item) => !moved.has(item.id)), matrix: identity },
  ];
}

function shifted(dx: number, dy: number) {
  return (item: InkItem): InkItem => {
    const [left, top, right, bottom] = item.box;
    return {
      ...item,
      dx: item.dx + dx,
      dy: item.dy + dy,
      box: [left + dx, top + dy, right + dx, bottom + dy],
    };
  };
}

/** As `Pen.MostHighlighterAlpha`. */
const mostHighlighterAlpha = 150;

/** A highlighter never fully covers. */
function coloured(value: string) {
  const light = Math.min(Number.parseInt(value.slice(6), 16), mostHighlighterAlpha)
    .toString(16)
    .padStart(2, '0');
  return (item: InkItem): InkItem =>
    item.kind === itemKinds.area
      ? item
      : { ...item, colour: `#${item.kind === itemKinds.highlighter ? value.slice(0, 6) + light : value}` };
}

/** Puts ink on the system's clipboard as a PNG without paper. */
async function copyPicture(items: InkItem[], [left, top, right, bottom]: Area): Promise<void> {
  const scale = Math.min(pixelsAMillimetre / 100, mostPixels / Math.max(right - left, bottom - top));
  const canvas = new OffscreenCanvas(
    Math.max(1, Math.ceil((right - left) * scale)),
    Math.max(1, Math.ceil((bottom - top) * scale)),
  );
  const context = canvas.getContext('2d') as unknown as CanvasRenderingContext2D;
  context.setTransform(scale, 0, 0, scale, -left * scale, -top * scale);
  for (const item of items) paintItem(context, item);
  await navigator.clipboard.write([
    new ClipboardItem({ 'image/png': await canvas.convertToBlob({ type: 'image/png' }) }),
  ]);
}
