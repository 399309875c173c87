import { t } from '@lingui/core/macro';
const mostBytes = 60 * 1024 * 1024;
/** A PDF page is drawn at this many dots an inch: sharp in print, and small enough to keep. */
const dotsAnInch = 220;
const mostEdge = 4_000;
const thumbnailEdge = 200;
const unreadable = t`This PDF file cannot be read. It may be damaged or protected. Nothing was kept.`;

/** A PDF file whose pages can be looked at. */
export interface PdfFile {
  pages: number;
  /** A page as a picture to keep. */
  picture: (number: number) => Promise<Blob>;
  /** A page as a small picture, to choose it by. */
  thumbnail: (number: number) => Promise<Blob>;
  close: () => void;
}

/** Opens a PDF file. Throws with a sentence when it cannot be read. */
export async function openPdf(file: Blob): Promise<PdfFile> {
  if (file.size > mostBytes) throw new Error(t`The PDF file is larger than 60 MB. Nothing was kept.`);
  const { getDocument, GlobalWorkerOptions } = await import('pdfjs-dist');
  GlobalWorkerOptions.workerSrc = (await import('pdfjs-dist/build/pdf.worker.min.mjs?url')).default;
  const task = getDocument({ data: new Uint8Array(await file.arrayBuffer()) });
  try {
    const document = await task.promise;
    const draw = async (number: number, scaleOf: (longer: number) => number): Promise<Blob> => {
      try {
        const page = await document.getPage(Math.min(Math.max(number, 1), document.numPages));
        const usual = page.getViewport({ scale: 1 });
        const viewport = page.getViewport({ scale: scaleOf(Math.max(usual.width, usual.height)) });
        const canvas = globalThis.document.createElement('canvas');
        canvas.width = Math.round(viewport.width);
        canvas.height = Math.round(viewport.height);
        await page.render({ canvas, viewport, background: '#ffffff' }).promise;
        page.cleanup();
        return await new Promise<Blob>((resolve, reject) =>
          canvas.toBlob((picture) => (picture ? resolve(picture) : reject(new Error(unreadable))), 'image/png'),
        );
      } catch {
        throw new Error(unreadable);
      }
    };
    return {
      pages: document.numPages,
      picture: (number) => draw(number, (longer) => Math.min(dotsAnInch / 72, mostEdge / longer)),
      thumbnail: (number) => draw(number, (longer) => thumbnailEdge / longer),
      close: () => void task.destroy(),
    };
  } catch {
    await task.destroy();
    throw new Error(unreadable);
  }
}
