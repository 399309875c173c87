import { FolderSimpleIcon } from '@phosphor-icons/react';
import { useState } from 'react';
import type { Space } from '../session/session';
import { whenWords } from '../ui/time';
import { Cover } from './Cover';
import type { Library } from './useLibrary';

/** What was put into the bin, each with the way back to its place. */
export function BinScreen({ library, space }: { library: Library; space: Space }) {
  const [said, setSaid] = useState('');
  const binned = library.bin();
  return (
    <>
      <header className="border-b border-base-300 pb-3">
        <p className="text-quiet">{space.name}</p>
        <h1 className="text-[30px] leading-tight">Bin</h1>
      </header>
      <p role="status" className="min-h-7 pt-2 text-quiet" data-testid="bin-said">
        {said}
      </p>
      {binned.length === 0 && <p className="py-10 text-quiet">The bin is empty. What you put into it keeps its place and can be put back.</p>}
      <ul>
        {binned.map((node) => (
          <li key={node.id} className="flex items-center gap-5 border-b border-base-300 py-4" data-testid="binned" data-name={node.name}>
            <span className="grid w-[84px] place-items-center">{node.kind === 'notebook' ? <Cover node={node} /> : <FolderSimpleIcon size={44} weight="thin" />}</span>
            <div className="grow">
              <h2 className="text-[19px]">{node.name}</h2>
              <p className="text-quiet">
                {node.kind === 'folder' ? 'Folder, with all that is in it' : 'Notebook'} from {library.find(node.parent)?.name ?? space.name}, put here {whenWords(new Date(node.binnedAt!).toISOString())}
              </p>
            </div>
            {space.role !== 'reader' && (
              <button type="button" className="quiet-button" data-testid="put-back" onClick={() => setSaid(`${node.name}: ${library.putBack(node.id)}`)}>
                Put back
              </button>
            )}
          </li>
        ))}
      </ul>
    </>
  );
}
