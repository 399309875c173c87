import { plural, t } from '@lingui/core/macro';
import { type RefObject, useEffect, useRef } from 'react';
import { sentenceOf } from '../core/runtime';
import { mostFile } from '../data/keptFiles';
import { isPictureFile, keepAny, keepWhole } from '../data/pictureFiles';
import { blobOf, fetchPreview } from '../data/previews';
import { useWorkspace } from '../data/useWorkspace';
import type { Area } from '../model/drawing';
import { Unreachable } from '../server/api';
import type { Blotter } from '../sheet/blotter/blotter';
import { copiedWords } from '../sheet/selection/clipboard';
import { cellsIn } from '../sheet/text/cells';
import { layAround } from '../sheet/things/picture/lay';
import type { OpenDocument } from '../sync/openDocument';
import { say } from '../ui/saying';
import { ownKeys } from './useSheetKeys';

/** So many at most come onto a page at once. */
const most = 40;
/** How large a plot is at first, 0.01 mm. */
const plotSize = { width: 11_000, height: 7_500 };
/** Half of how wide the card of a file is. */
const cardHalf = 3_250;
/** So far below a table its plot lies. */
const plotGap = 600;
/** Where a formula begins, as shares of what is seen. */
const formulaBegins = [0.36, 0.24] as const;
const pointColour = '1f5f8bff';
/** So far below the words of its address a preview lies. */
const previewGap = 300;
/** How wide a table is at most that comes from the clipboard, 0.01 mm. */
const cellsWidth = 14_000;

interface PuttingIn {
  /** What is dropped onto. */
  desk: RefObject<HTMLElement | null>;
  page: OpenDocument;
  blotter: Blotter | undefined;
  paper: string;
  layer: string;
  /** Keys belong to this sheet. */
  active: boolean;
  mayWrite: boolean;
  /** What came is selected. */
  take: (items: string[]) => void;
  /** Lays down what was copied on a page. */
  paste: () => void;
}

/** Brings pictures onto a page, chosen, pasted and dropped, and plots. */
export function usePuttingIn(around: PuttingIn): {
  putPictures: (files: readonly File[]) => void;
  putFiles: (files: readonly File[]) => void;
  putPlot: (table?: string) => void;
  putFormula: () => void;
  putPreview: (address: string, below: Area) => void;
} {
  const workspace = useWorkspace();
  const { ThingBridge } = workspace.core;
  const latest = useRef(around);
  latest.current = around;

  /** Lays things down, and selects them. */
  const lay = (page: OpenDocument, take: PuttingIn['take'], make: (handle: number, now: number) => Uint8Array) => {
    try {
      page.performTogether(make);
      take(ThingBridge.Made());
    } catch (error) {
      say(sentenceOf(error));
    }
  };

  const bring = async (files: readonly File[], at?: { x: number; y: number }) => {
    const { page, blotter, layer, take } = latest.current;
    if (!blotter) return;
    const pictures = files.filter(isPictureFile).slice(0, most);
    if (pictures.length === 0) return say(t`This is not a picture that can be read here. Nothing was kept.`);
    const { kept, problem } = await keepEach(pictures, (file) => keepWhole(workspace, page.space, file));
    if (problem) say(problem);
    else if (files.length > kept.length)
      say(
        plural(files.length - kept.length, {
          one: 'One file is no picture, or one too many, and was left out.',
          other: '# files are no pictures, or too many, and were left out.',
        }),
      );
    if (kept.length === 0 || latest.current.page !== page) return;
    const boxes = layAround(kept, blotter.sheet, at ?? blotter.view.middle);
    const assets = kept.map(({ asset }) => asset);
    lay(page, take, (handle, now) => ThingBridge.AddPictures(handle, assets, boxes, layer, now));
  };

  /** Keeps files as they are, each as a card on the page. */
  const bringFiles = async (files: readonly File[], at?: { x: number; y: number }) => {
    const { page, blotter, layer, take } = latest.current;
    if (!blotter) return;
    const { kept, problem } = await keepEach(files.slice(0, most), async (file) => {
      if (file.size === 0) throw new Error(t`“${file.name}” is empty. Nothing was kept.`);
      if (file.size > mostFile) throw new Error(t`A file holds at most 64 MB. “${file.name}” was not kept.`);
      return { asset: await keepAny(workspace, page.space, file), file };
    });
    if (problem) say(problem);
    if (kept.length === 0 || latest.current.page !== page) return;
    const { x, y } = at ?? blotter.view.middle;
    const assets = kept.map(({ asset }) => asset);
    const [names, sizes] = [kept.map(({ file }) => file.name), kept.map(({ file }) => file.size)];
    const [left, top] = [Math.round(x - cardHalf), Math.round(y)];
    lay(page, take, (handle, now) => ThingBridge.AddFiles(handle, assets, names, sizes, left, top, layer, now));
  };

  /** Pictures as pictures, all else as cards. */
  const bringAll = (files: readonly File[], at?: { x: number; y: number }) => {
    const pictures = files.filter(isPictureFile);
    const others = files.filter((file) => !isPictureFile(file));
    if (pictures.length > 0) void bring(pictures, at);
    if (others.length > 0) void bringFiles(others, at);
  };

  const putCells = (cells: string) => {
    const { page, blotter, layer, take } = latest.current;
    if (!blotter) return;
    const { x, y } = blotter.view.middle;
    const { TableBridge } = workspace.core;
    const width = Math.min(cellsWidth, blotter.sheet[2] - blotter.sheet[0]);
    try {
      page.perform((handle, now) =>
        TableBridge.AddCells(handle, Math.round(x - width / 2), Math.round(y), Math.round(width), cells, layer, now),
      );
      take([TableBridge.Made()]);
    } catch (error) {
      say(sentenceOf(error));
    }
  };
  useEffect(() => {
    const pasted = (event: ClipboardEvent) => {
      const { active, mayWrite, paste } = latest.current;
      const at = event.target as Element | null;
      if (!active || !mayWrite || event.defaultPrevented || at?.closest?.(ownKeys)) return;
      const files = [...(event.clipboardData?.files ?? [])];
      event.preventDefault();
      const cells = event.clipboardData?.getData('text/plain') === copiedWords() ? '' : cellsIn(event.clipboardData);
      if (files.length > 0) bringAll(files);
      else if (cells) putCells(cells);
      else paste();
    };
    addEventListener('paste', pasted);
    return () => removeEventListener('paste', pasted);
  }, []);

  useEffect(() => {
    const { current } = around.desk;
    if (!current) return undefined;
    const over = (event: DragEvent) => {
      if (!latest.current.mayWrite || !event.dataTransfer?.types.includes('Files')) return;
      event.preventDefault();
      event.dataTransfer.dropEffect = 'copy';
    };
    const dropped = (event: DragEvent) => {
      const { blotter, mayWrite } = latest.current;
      const files = [...(event.dataTransfer?.files ?? [])];
      if (!mayWrite || !blotter || files.length === 0) return;
      event.preventDefault();
      bringAll(files, blotter.view.onPage(event.clientX, event.clientY));
    };
    current.addEventListener('dragover', over);
    current.addEventListener('drop', dropped);
    return () => {
      current.removeEventListener('dragover', over);
      current.removeEventListener('drop', dropped);
    };
  }, []);

  /** A plot in the middle of what is seen; of a table below that. */
  const putPlot = (table?: string) => {
    const { page, blotter, layer, take } = latest.current;
    if (!blotter) return;
    const { TableBridge, HandBridge } = workspace.core;
    const [points = '', axes = ''] = table ? TableBridge.Plotted(page.handle, table, pointColour) : [];
    if (table && !points) return say(t`There are not two columns of numbers in it.`);
    const [left, , right, bottom] = table ? HandBridge.BoundsOf(page.handle, [table]) : [];
    const { x, y } =
      left === undefined ? blotter.view.middle : { x: (left + right!) / 2, y: bottom! + plotSize.height / 2 + plotGap };
    const box = [x - plotSize.width / 2, y - plotSize.height / 2, plotSize.width, plotSize.height].map(Math.round);
    lay(page, take, (handle, now) => ThingBridge.AddPlot(handle, box, table ?? '', points, axes, layer, now));
  };

  /** A formula on a line of the paper, so that there is room below for how it is worked out. */
  const putFormula = () => {
    const { desk, page, blotter, paper, layer, take } = latest.current;
    const around = desk.current?.getBoundingClientRect();
    if (!blotter || !around) return;
    const [across, down] = formulaBegins;
    const { x, y } = blotter.view.onPage(around.left + around.width * across, around.top + around.height * down);
    const [foot] = workspace.core.TextBridge.RowAt(page.handle, paper, x, y) as [number];
    lay(page, take, (handle, now) => ThingBridge.AddFormula(handle, Math.round(x), foot, layer, now));
  };

  /** What an address leads to says of itself, fetched once and kept; below the words that said the address. */
  const putPreview = async (address: string, [left, , , bottom]: Area) => {
    const { page, layer, take } = latest.current;
    say(t`The preview is being fetched …`);
    try {
      const { title, words, site, picture } = await fetchPreview(address);
      // What the browser cannot read as a picture is left out.
      const kept = picture && (await keepWhole(workspace, page.space, blobOf(picture)).catch(() => undefined));
      if (latest.current.page !== page) return;
      const card = [address, title, site, words];
      const at = [left, bottom + previewGap, kept?.width ?? 0, kept?.height ?? 0].map(Math.round);
      lay(page, take, (handle, now) => ThingBridge.AddPreview(handle, card, kept?.asset ?? '', at, layer, now));
      say(t`The preview is kept with this page.`);
    } catch (error) {
      say(error instanceof Unreachable ? t`A preview needs a connection.` : sentenceOf(error));
    }
  };

  return {
    putPictures: (files) => void bring(files),
    putFiles: (files) => void bringFiles(files),
    putPlot,
    putFormula,
    putPreview: (address, below) => void putPreview(address, below),
  };
}

/** Keeps files one after the other; what went wrong first, if anything did. */
async function keepEach<T>(
  files: readonly File[],
  keep: (file: File) => Promise<T>,
): Promise<{ kept: T[]; problem: string | undefined }> {
  const kept: T[] = [];
  let problem: string | undefined;
  for (const file of files) {
    try {
      kept.push(await keep(file));
    } catch (error) {
      problem ??= sentenceOf(error);
    }
  }
  return { kept, problem };
}
