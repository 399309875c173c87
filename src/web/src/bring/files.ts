import { t } from '@lingui/core/macro';
import type { PDFDocumentProxy } from 'pdfjs-dist';
import { mostFile } from '../data/keptFiles';
import { isPictureFile, keepAny, keepWhole } from '../data/pictureFiles';
import { blobOf, drawPage, isPdf, openDocument } from '../printed/pdf';
import { Cancelled, request, Unreachable } from '../server/api';
import type { Workspace } from '../sync/workspace';

/** A PDF file has so many pages at most, and so many bookmarks are looked at. */
const mostPages = 2_000;
const mostBookmarks = 3_000;
/** So many pages are measured before the screen is painted again. */
const atOnce = 50;

/** A file that can be brought in, and what is in it. */
export interface BroughtFile {
  name: string;
  blob: File;
  /** Undefined for a picture. */
  pdf: PDFDocumentProxy | undefined;
  leaves: LeafSize[];
  /** Its bookmarks; each leads to a leaf by its place in the file. */
  bookmarks: Bookmark[];
}

/** A page of a file: its number (0 for a picture) and size, in points or dots. */
export interface LeafSize {
  number: number;
  width: number;
  height: number;
}

export interface Bookmark {
  level: number;
  title: string;
  leaf: number;
}

/** What can be brought in. */
export const bringable = 'application/pdf,image/*';

/** Looks into a file. Throws a sentence where it cannot be read; then nothing was kept. */
export async function lookInto(file: File, password: string | undefined, signal: AbortSignal): Promise<BroughtFile> {
  if (file.size > mostFile) throw new Error(t`A file holds at most 64 MB. “${file.name}” was left out.`);
  if (isPdf(file)) return lookIntoPdf(file, password, signal);
  if (!isPictureFile(file)) throw new Error(t`“${file.name}” is neither a PDF file nor a picture, and was left out.`);
  const { width, height } = await sizeOf(file);
  return { name: file.name, blob: file, pdf: undefined, leaves: [{ number: 0, width, height }], bookmarks: [] };
}

async function lookIntoPdf(given: File, password: string | undefined, signal: AbortSignal): Promise<BroughtFile> {
  const file = password ? await unlocked(given, password) : given;
  const pdf = await openDocument(file);
  try {
    if (pdf.numPages > mostPages)
      throw new Error(t`“${file.name}” has ${pdf.numPages} pages; the most is ${mostPages}. It was left out.`);
    const leaves: LeafSize[] = [];
    for (let number = 1; number <= pdf.numPages; number++) {
      if (number % atOnce === 0) await new Promise((painted) => setTimeout(painted));
      if (signal.aborted) throw new Cancelled();
      const { width, height } = (await pdf.getPage(number)).getViewport({ scale: 1 });
      leaves.push({ number, width, height });
    }
    return { name: file.name, blob: file, pdf, leaves, bookmarks: await bookmarksOf(pdf) };
  } catch (problem) {
    void pdf.loadingTask.destroy();
    throw problem;
  }
}

/** A protected file without its protection, which the server takes off: its pages are shown and printed later without being asked for it. */
async function unlocked(file: File, password: string): Promise<File> {
  // Whether it is the right one is found here.
  void (await openDocument(file, password)).loadingTask.destroy();
  const said = new TextEncoder().encode(password);
  const body = new Blob([new Uint8Array([said.length % 256, said.length >> 8]), said, file]);
  try {
    const answer = await request('POST', '/api/unlocked-files', body, 'application/octet-stream');
    return new File([await answer.blob()], file.name, { type: 'application/pdf' });
  } catch (problem) {
    throw problem instanceof Unreachable
      ? new Error(t`A protected file can be brought in with a connection only. “${file.name}” was left out.`)
      : problem;
  }
}

type Outline = Awaited<ReturnType<PDFDocumentProxy['getOutline']>>;

/** The bookmarks in their order, however deep they lie; without recursion, since anybody may have written them. */
async function bookmarksOf(pdf: PDFDocumentProxy): Promise<Bookmark[]> {
  const found: Bookmark[] = [];
  const outline: Outline | null = await pdf.getOutline().catch(() => null);
  const waiting = (outline ?? []).map((item) => ({ item, level: 0 })).reverse();
  while (waiting.length > 0 && found.length < mostBookmarks) {
    const { item, level } = waiting.pop()!;
    const leaf = await leafOf(pdf, item.dest);
    if (leaf !== undefined) found.push({ level, title: item.title, leaf });
    waiting.push(...(item.items as Outline).map((inner) => ({ item: inner, level: level + 1 })).reverse());
  }
  return found;
}

async function leafOf(pdf: PDFDocumentProxy, destination: unknown): Promise<number | undefined> {
  try {
    const place: unknown = typeof destination === 'string' ? await pdf.getDestination(destination) : destination;
    const page: unknown = Array.isArray(place) ? place[0] : undefined;
    if (typeof page === 'number') return page;
    return page ? await pdf.getPageIndex(page as Parameters<PDFDocumentProxy['getPageIndex']>[0]) : undefined;
  } catch {
    return undefined;
  }
}

async function sizeOf(picture: File): Promise<{ width: number; height: number }> {
  const shown = new Image();
  shown.src = URL.createObjectURL(picture);
  try {
    await shown.decode();
    return { width: shown.naturalWidth || 210, height: shown.naturalHeight || 297 };
  } catch {
    throw new Error(t`“${picture.name}” is not a picture that can be read here, and was left out.`);
  } finally {
    URL.revokeObjectURL(shown.src);
  }
}

/** A leaf as a small picture so many dots wide. */
export async function faceOf({ pdf, blob }: BroughtFile, number: number, width: number): Promise<Blob> {
  if (!pdf) return blob;
  return blobOf(await drawPage(pdf, number, (wide) => width / wide), 'image/webp');
}

/** Keeps a file for a space; its id there. */
export async function keepBrought(workspace: Workspace, space: string, file: BroughtFile): Promise<string> {
  return file.pdf ? keepAny(workspace, space, file.blob) : (await keepWhole(workspace, space, file.blob)).asset;
}
