const mostBytes = 60 * 1024 * 1024;
/** A PDF page is drawn at this many dots an inch: sharp in print, and small enough to keep. */
const dotsAnInch = 220;
const mostEdge = 4_000;

/** One page of a PDF file as a picture, and how many pages the file has. Throws with a sentence when it cannot be read. */
export async function pdfPage(file: Blob, number: number): Promise<{ picture: Blob; pages: number }> {
  if (file.size > mostBytes) throw new Error('The PDF file is larger than 60 MB. Nothing was kept.');
  const { getDocument, GlobalWorkerOptions } = await import('pdfjs-dist');
  GlobalWorkerOptions.workerSrc = (await import('pdfjs-dist/build/pdf.worker.min.mjs?url')).default;
  const task = getDocument({ data: new Uint8Array(await file.arrayBuffer()) });
  try {
    const document = await task.promise;
    const page = await document.getPage(Math.min(Math.max(number, 1), document.numPages));
    const usual = page.getViewport({ scale: 1 });
    const viewport = page.getViewport({
      scale: Math.min(dotsAnInch / 72, mostEdge / Math.max(usual.width, usual.height)),
    });
    const canvas = globalThis.document.createElement('canvas');
    canvas.width = Math.round(viewport.width);
    canvas.height = Math.round(viewport.height);
    await page.render({ canvas, viewport, background: '#ffffff' }).promise;
    const picture = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/png'));
    return { picture: picture!, pages: document.numPages };
  } catch {
    throw new Error('This PDF file cannot be read. It may be damaged or protected. Nothing was kept.');
  } finally {
    await task.destroy();
  }
}
