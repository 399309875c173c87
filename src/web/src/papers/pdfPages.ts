import { t } from '@lingui/core/macro';
import { blobOf, drawPage, openDocument, Protected } from '../printed/pdf';

const mostBytes = 60 * 1024 * 1024;
/** A PDF page is drawn at this many dots an inch: sharp in print, and small enough to keep. */
const dotsAnInch = 220;
const mostEdge = 4_000;
const thumbnailEdge = 200;

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
  const document = await openDocument(file).catch((problem: unknown) => {
    throw problem instanceof Protected
      ? new Error(t`This PDF file is protected by a password. Nothing was kept.`)
      : problem;
  });
  const draw = async (number: number, scaleOf: (longer: number) => number) =>
    blobOf(await drawPage(document, number, (width, height) => scaleOf(Math.max(width, height))));
  return {
    pages: document.numPages,
    picture: (number) => draw(number, (longer) => Math.min(dotsAnInch / 72, mostEdge / longer)),
    thumbnail: (number) => draw(number, (longer) => thumbnailEdge / longer),
    close: () => void document.loadingTask.destroy(),
  };
}
