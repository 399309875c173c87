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

/** A page of a file as a picture so many dots long at its longer side; or a part of that. */
export async function drawLeaf(
  asset: string,
  file: Blob,
  leaf: number,
  side: number,
  part?: Part,
): Promise<ImageBitmap> {
  const document = await opened(asset, file);
  return createImageBitmap(await drawPage(document, leaf, (width, height) => side / Math.max(width, height), part));
}

/** How large a page is as it is shown, points. */
export async function sizeOfLeaf(asset: string, file: Blob, leaf: number): Promise<{ width: number; height: number }> {
  const page = await (await opened(asset, file)).getPage(leaf);
  const { width, height } = page.getViewport({ scale: 1 });
  return { width, height };
}
