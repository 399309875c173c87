import { may } from '../data/rights';
import { t } from '@lingui/core/macro';
import { FolderSimpleIcon } from '@phosphor-icons/react';
import { useMemo, useRef, useState } from 'react';
import { useSession } from '../server/session';
import { useWorkspace } from '../data/useWorkspace';
import { Choices, ChoiceWords } from '../ui/Choices';
import { FormDialog, Problem } from '../ui/FormDialog';
import { root } from '../model/items';
import type { Library } from '../data/Library';
import { useLibraries } from '../data/useLibrary';

interface Target {
  space: string;
  id: string;
  name: string;
  path: string;
  folded: string;
  depth: number;
}

const mostShown = 200;

/** Chooses the folder something goes into: by typing a part of its name, by arrow keys, or by pressing it. */
export function MoveDialog({
  title,
  space: own,
  without,
  onMove,
  onClose,
}: {
  title: string;
  space: string;
  without: string[];
  onMove: (space: string, folder: string) => Promise<string>;
  onClose: () => void;
}) {
  const { spaces } = useSession();
  const { core } = useWorkspace();
  const libraries = useLibraries();
  const [typed, setTyped] = useState('');
  const [at, setAt] = useState(0);
  const targets = useMemo(
    () =>
      libraries
        ? spaces
            .filter((space) => may(space, 'Write'))
            .sort((a, b) => Number(b.id === own) - Number(a.id === own))
            .flatMap((space) => targetsOf(libraries.get(space.id)!, space.name, new Set(without)))
        : [],
    [libraries, spaces, own, without],
  );
  const wanted = core.LibraryBridge.Fold(typed);
  const found = targets.filter((target) => target.folded.includes(wanted)).slice(0, mostShown);
  const chosen = found[Math.min(at, found.length - 1)];
  const form = useRef<HTMLDivElement>(null);
  return (
    <FormDialog
      title={title}
      confirm={t`Move here`}
      disabled={!chosen}
      onConfirm={async () => {
        const refused = await onMove(chosen!.space, chosen!.id);
        if (refused) throw new Error(refused);
      }}
      onClose={onClose}
    >
      {(problem) => (
        <div ref={form}>
          <Choices
            label={t`Folder`}
            testId="move"
            typed={typed}
            onTyped={(text) => (setTyped(text), setAt(0))}
            choices={found.map((target) => ({
              key: `${target.space}${target.id}`,
              name: target.name,
              indent: typed ? 0 : target.depth * 18,
              face: (
                <>
                  <FolderSimpleIcon size={18} weight="light" className="shrink-0" />
                  <ChoiceWords words={target.name} about={typed ? target.path : undefined} />
                </>
              ),
            }))}
            at={Math.min(at, found.length - 1)}
            onAt={setAt}
            onEnter={() => form.current?.closest('form')?.requestSubmit()}
            onPress={setAt}
            height={300}
            none={t`No folder is called that.`}
          />
          <Problem words={problem} testId="move-problem" />
        </div>
      )}
    </FormDialog>
  );
}

function targetsOf(library: Library, name: string, without: Set<string>): Target[] {
  const targets: Target[] = [{ space: library.space, id: root, name, path: '', folded: name.toLowerCase(), depth: 0 }];
  const gather = (parent: string, path: string, depth: number) => {
    for (const folder of library.inside(parent, 'folder')) {
      if (without.has(folder.id)) continue;
      targets.push({ space: library.space, id: folder.id, name: folder.name, path, folded: folder.folded, depth });
      gather(folder.id, `${path} / ${folder.name}`, depth + 1);
    }
  };
  gather(root, name, 1);
  return targets;
}
