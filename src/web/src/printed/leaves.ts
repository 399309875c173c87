import type { PDFDocumentProxy } from 'pdfjs-dist';
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
