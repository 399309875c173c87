import { useId, useState } from 'react';
import { sentenceOf } from '../core/runtime';
import { Dialog, DialogButtons } from '../ui/Dialog';
import { Cover } from './Cover';
import { fillOf } from './palette';
import { colours, covers, type Library, type LibraryNode, root } from './useLibrary';

/** Asks for a name; what Core refuses is said under the field. */
export function NameDialog({ title, confirm, name: given = '', onConfirm, onClose }: { title: string; confirm: string; name?: string; onConfirm: (name: string) => void; onClose: () => void }) {
  const [name, setName] = useState(given);
  const [problem, setProblem] = useState('');
  return (
    <Dialog title={title} onClose={onClose}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          const refused = attempt(() => onConfirm(name));
          if (refused) setProblem(refused);
          else onClose();
        }}
      >
        <NameField value={name} onChange={setName} problem={problem} />
        <DialogButtons confirm={confirm} onClose={onClose} />
      </form>
    </Dialog>
  );
}

/** A new notebook: its name, its cover's colour and pattern, seen as it is chosen. */
export function NotebookDialog({ onConfirm, onClose }: { onConfirm: (name: string, colour: string, cover: string) => Promise<void>; onClose: () => void }) {
  const [name, setName] = useState('');
  const [colour, setColour] = useState<string>(colours[0]);
  const [cover, setCover] = useState<string>(covers[0]);
  const [problem, setProblem] = useState('');
  const shown: LibraryNode = { id: '', kind: 'notebook', parent: '', name: name || 'Untitled', colour, cover, inBin: false };
  return (
    <Dialog title="New notebook" onClose={onClose}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          onConfirm(name, colour, cover).catch((error: unknown) => setProblem(sentenceOf(error)));
        }}
      >
        <div className="flex gap-6">
          <Cover node={shown} />
          <div className="min-w-0 grow">
            <NameField value={name} onChange={setName} problem={problem} />
            <fieldset className="mt-3 flex gap-1">
              <legend className="mb-1 font-semibold">Colour</legend>
              {colours.map((one) => (
                <button key={one} type="button" aria-label={one} title={one} aria-pressed={colour === one} onClick={() => setColour(one)} className="grid size-10 place-items-center rounded-full">
                  <span className={`size-7 rounded-full ${fillOf[one]} ${colour === one ? 'outline-2 outline-offset-2 outline-primary' : ''}`} />
                </button>
              ))}
            </fieldset>
            <fieldset className="mt-3 flex flex-wrap gap-1.5">
              <legend className="mb-1 font-semibold">Pattern</legend>
              {covers.map((one) => (
                <button key={one} type="button" aria-pressed={cover === one} onClick={() => setCover(one)} className={`h-10 rounded-md border px-2.5 capitalize ${cover === one ? 'border-primary font-semibold' : 'border-base-300'}`}>
                  {one}
                </button>
              ))}
            </fieldset>
          </div>
        </div>
        <p className="mt-4 text-[13px] text-quiet">Paper: A4, ruled at 7.1 mm.</p>
        <DialogButtons confirm="Make the notebook" onClose={onClose} />
      </form>
    </Dialog>
  );
}

/** Chooses the folder something goes into. */
export function MoveDialog({ library, node, spaceName, onClose }: { library: Library; node: LibraryNode; spaceName: string; onClose: () => void }) {
  const [into, setInto] = useState(node.parent);
  const [problem, setProblem] = useState('');
  const places: { id: string; name: string; depth: number }[] = [{ id: root, name: spaceName, depth: 0 }];
  const gather = (parent: string, depth: number) => {
    for (const folder of library.inside(parent, 'folder')) {
      places.push({ id: folder.id, name: folder.name, depth });
      gather(folder.id, depth + 1);
    }
  };
  gather(root, 1);
  return (
    <Dialog title={`Move “${node.name}”`} onClose={onClose}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          const refused = attempt(() => library.move(node.id, into));
          if (refused) setProblem(refused);
          else onClose();
        }}
      >
        <fieldset className="max-h-[300px] overflow-y-auto">
          <legend className="sr-only">Folder</legend>
          {places.map((place) => (
            <label key={place.id} style={{ paddingLeft: 8 + place.depth * 20 }} className={`flex h-10 items-center gap-3 rounded-md pr-2 hover:bg-base-200 ${into === place.id ? 'bg-base-200 font-semibold' : ''}`}>
              <input type="radio" name="place" className="radio radio-primary radio-xs" data-name={place.name} checked={into === place.id} onChange={() => setInto(place.id)} />
              {place.name}
            </label>
          ))}
        </fieldset>
        <p role="alert" className="min-h-5 pt-2 text-error">
          {problem}
        </p>
        <DialogButtons confirm="Move here" onClose={onClose} />
      </form>
    </Dialog>
  );
}

function NameField({ value, onChange, problem }: { value: string; onChange: (value: string) => void; problem: string }) {
  const id = useId();
  return (
    <>
      <label htmlFor={id} className="mb-1 block font-semibold">
        Name
      </label>
      <input id={id} className="field" value={value} autoFocus data-testid="name-input" onChange={(event) => onChange(event.target.value)} />
      {problem && (
        <p role="alert" className="pt-1.5 text-error" data-testid="name-problem">
          {problem}
        </p>
      )}
    </>
  );
}

/** Does something that Core may refuse; the sentence of the refusal, or an empty string. */
export function attempt(action: () => void): string {
  try {
    action();
    return '';
  } catch (problem) {
    return sentenceOf(problem);
  }
}
