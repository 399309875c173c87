import { t } from '@lingui/core/macro';
import type { PDFDocumentProxy } from 'pdfjs-dist';
import { Unreachable } from '../server/api';

/** Where what PDF files may need besides themselves lies: fonts, character maps, and what unfolds pictures. */
const beside = `/assets/pdf-${__PDF__}/`;

const unreadable = () => t`This PDF file cannot be read. It may be damaged. Nothing was kept.`;

/** A PDF file asks for its password, or the one that was said is not it. */
export class Protected extends Error {
  constructor(readonly wasWrong: boolean) {
    super(
      wasWrong
        ? t`That is not the password of this file.`
        : t`This file is protected. Say its password to bring it in.`,
    );
  }
}

/** What reads PDF files; {@link Unreachable} where its code can be had neither from the device nor from the server. */
async function reader() {
  try {
    const reading = await import('pdfjs-dist');
    reading.GlobalWorkerOptions.workerSrc = (await import('pdfjs-dist/build/pdf.worker.min.mjs?url')).default;
    return reading;
  } catch {
    throw new Unreachable();
  }
}

/** Opens a PDF file; nothing in it is run. Throws a sentence where it cannot be read, and {@link Protected} where it wants a password. */
export async function openDocument(file: Blob, password?: string): Promise<PDFDocumentProxy> {
  const { getDocument, PasswordException } = await reader();
  const task = getDocument({
    data: new Uint8Array(await file.arrayBuffer()),
    cMapUrl: `${beside}cmaps/`,
    standardFontDataUrl: `${beside}standard_fonts/`,
    wasmUrl: `${beside}wasm/`,
    iccUrl: `${beside}iccs/`,
    enableXfa: false,
    ...(password ? { password } : {}),
  });
  try {
    return await task.promise;
  } catch (problem) {
    await task.destroy();
    if (problem instanceof PasswordException) throw new Protected(Boolean(password));
    throw new Error(unreadable());
  }
}

/** What of a page is drawn, in dots of the whole page as it is drawn. */
export interface Part {
  left: number;
  top: number;
  width: number;
  height: number;
}

/** Draws a page, or a part of it, on white. Throws a sentence where it cannot be drawn. */
export async function drawPage(
  document: PDFDocumentProxy,
  number: number,
  scaleOf: (width: number, height: number) => number,
  part?: Part,
): Promise<HTMLCanvasElement> {
  try {
    const page = await document.getPage(Math.min(Math.max(number, 1), document.numPages));
    const usual = page.getViewport({ scale: 1 });
    const scale = scaleOf(usual.width, usual.height);
    const viewport = page.getViewport({ scale, offsetX: -(part?.left ?? 0), offsetY: -(part?.top ?? 0) });
    const canvas = globalThis.document.createElement('canvas');
    canvas.width = Math.max(1, Math.round(part?.width ?? viewport.width));
    canvas.height = Math.max(1, Math.round(part?.height ?? viewport.height));
    await page.render({ canvas, viewport, background: '#ffffff' }).promise;
    // Of a page that is drawn in parts what it draws is needed again at once.
    if (!part) page.cleanup();
    return canvas;
  } catch {
    throw new Error(unreadable());
  }
}

export async function blobOf(canvas: HTMLCanvasElement, type: 'image/png' | 'image/webp' = 'image/png'): Promise<Blob> {
  return new Promise<Blob>((resolve, reject) =>
    canvas.toBlob((picture) => (picture ? resolve(picture) : reject(new Error(unreadable()))), type, 0.9),
  );
}

/** Whether a file calls itself a PDF file. */
export const isPdf = (file: File): boolean => file.type === 'application/pdf' || /\.pdf$/i.test(file.name);
