import type { PDFDocumentProxy } from 'pdfjs-dist';
import type { Area } from '../model/drawing';
import { drawPage, openDocument, type Part } from './pdf';

/** So many files are held open at once. */
const mostOpen = 4;

const open = new Map<string, Promise<PDFDocumentProxy>>();

/** A file that was opened before, or now. The one that was used longest ago is closed for it. */
export function opened(asset: string, file: Blob): Promise<PDFDocumentProxy> {
  const known = open.get(asset);
  if (known) open.delete(asset);
  const document = known ?? openDocument(file);
  open.set(asset, document);
  document.catch(() => open.delete(asset));
  for (const [other, one] of [...open].slice(0, Math.max(0, open.size - mostOpen))) {
    open.delete(other);
    void one.then((gone) => gone.loadingTask.destroy()).catch(() => {});
  }
  return document;
}

/** A part is drawn with so many dots around it: of a letter whose line lies outside of a canvas some browsers leave out what reaches in. */
const around = 384;

/** A page of a file as a picture so many dots long at its longer side; or a part of that. */
export async function drawLeaf(
  asset: string,
  file: Blob,
  leaf: number,
  side: number,
  part?: Part,
): Promise<ImageBitmap> {
  const document = await opened(asset, file);
  const scaleOf = (width: number, height: number) => side / Math.max(width, height);
  if (!part) return createImageBitmap(await drawPage(document, leaf, scaleOf));
  const { left, top, width, height } = part;
  const larger = { left: left - around, top: top - around, width: width + 2 * around, height: height + 2 * around };
  return createImageBitmap(
    await drawPage(document, leaf, scaleOf, larger),
    around,
    around,
    Math.round(width),
    Math.round(height),
  );
}

/** How large a page is as it is shown, points. */
export async function sizeOfLeaf(asset: string, file: Blob, leaf: number): Promise<{ width: number; height: number }> {
  const page = await (await opened(asset, file)).getPage(leaf);
  const { width, height } = page.getViewport({ scale: 1 });
  return { width, height };
}

/** Addresses that a link of a file may lead to. */
const followed = /^(https?|mailto):/i;

/** Where the links of a page lead to the web or to mail, and where they lie: shares of the page as it is shown. */
export async function linksOf(asset: string, file: Blob, leaf: number): Promise<{ address: string; area: Area }[]> {
  const page = await (await opened(asset, file)).getPage(leaf);
  const viewport = page.getViewport({ scale: 1 });
  const notes = (await page.getAnnotations({ intent: 'display' })) as {
    subtype: string;
    url?: string;
    rect: number[];
  }[];
  return notes.flatMap(({ subtype, url, rect }) => {
    if (subtype !== 'Link' || !url || !followed.test(url)) return [];
    const [x1, y1] = viewport.convertToViewportPoint(rect[0]!, rect[1]!) as [number, number];
    const [x2, y2] = viewport.convertToViewportPoint(rect[2]!, rect[3]!) as [number, number];
    const { width, height } = viewport;
    return [
      {
        address: url,
        area: [
          Math.min(x1, x2) / width,
          Math.min(y1, y2) / height,
          Math.max(x1, x2) / width,
          Math.max(y1, y2) / height,
        ],
      },
    ];
  });
}

/** A printed word: where its baseline begins and ends, and how high its type is; shares of the page as it is shown. */
export interface PrintedWord {
  from: [number, number];
  to: [number, number];
  height: number;
}

/** So many words of one page are looked at. */
const mostWords = 20_000;

/** The words of a page. Where one ends within a run of letters is known as nearly as an ordinary type has its widths. */
export async function wordsOf(asset: string, file: Blob, leaf: number): Promise<PrintedWord[]> {
  const page = await (await opened(asset, file)).getPage(leaf);
  const viewport = page.getViewport({ scale: 1 });
  const { items } = await page.getTextContent();
  const words: PrintedWord[] = [];
  for (const item of items) {
    if (!('str' in item) || words.length > mostWords) continue;
    const [a, b, c, d, e, f] = item.transform as [number, number, number, number, number, number];
    const [size, height] = [Math.hypot(a, b), Math.hypot(c, d)];
    if (size === 0 || height === 0) continue;
    const at = (share: number): [number, number] => {
      const along = share * item.width;
      const place = viewport.convertToViewportPoint(e + (a / size) * along, f + (b / size) * along) as [number, number];
      return [place[0] / viewport.width, place[1] / viewport.height];
    };
    for (const { start, end } of wordsIn(item.str))
      words.push({ from: at(start), to: at(end), height: (height * viewport.scale) / viewport.height });
  }
  return words;
}

let measuring: CanvasRenderingContext2D | undefined;

/** The words of a run of letters, as shares of its length. */
function wordsIn(run: string): { start: number; end: number }[] {
  measuring ??= globalThis.document.createElement('canvas').getContext('2d')!;
  measuring.font = '100px serif';
  const wide = (text: string) => measuring!.measureText(text).width;
  const whole = wide(run) || 1;
  return [...run.matchAll(/\S+/g)].map(({ 0: word, index }) => {
    const start = wide(run.slice(0, index)) / whole;
    return { start, end: Math.min(1, start + wide(word) / whole) };
  });
}
