import { useContext, useEffect, useState } from 'react';
import { defaultPaper, type NotebookEntry, thumbnailPath } from '../model/items';
import { drawPaper } from '../model/drawing';
import { PaperPicture } from './PaperPicture';
import { PagePicture } from '../pictures/PagePicture';
import { useWorkspace } from '../data/useWorkspace';
import { Moving } from './dragged';

/** While one scrolls, a tile that is only scrolled past asks for no picture. */
const settleMilliseconds = 120;

/** A page, small: its picture from the server, or while there is none, its paper. */
export function PageFace({
  space,
  page,
  shown,
  width,
}: {
  space: string;
  page: NotebookEntry;
  /** What of it the server knows: the number of its last operation, and of a page as it was, when. */
  shown: { sequence: number; until?: number } | undefined;
  width: number;
}) {
  const { core } = useWorkspace();
  const [failed, setFailed] = useState('');
  const paper = page.paper || defaultPaper;
  const address = thumbnailPath(space, { sequence: 0, ...shown, id: page.id, paper });
  const { sheet, ground } = drawPaper(core, paper);
  const [left, top, right, bottom] = sheet;
  const height = Math.round((width * (bottom - top)) / (right - left));
  const moving = useContext(Moving);
  const [settled, setSettled] = useState(() => !moving.current);
  useEffect(() => {
    if (settled) return;
    const timer = setTimeout(() => setSettled(true), settleMilliseconds);
    return () => clearTimeout(timer);
  }, [settled]);
  if (!settled)
    return <span className="block max-h-full border border-base-300" style={{ width, height, background: ground }} />;
  if (!shown || failed === address) return <PaperPicture paper={paper} width={width} space={space} />;
  return (
    <PagePicture
      address={address}
      width={width}
      height={height}
      className="max-h-full"
      ground={ground}
      onFailed={() => setFailed(address)}
    />
  );
}
