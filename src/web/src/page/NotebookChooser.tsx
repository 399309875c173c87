import { useState } from 'react';
import type { LibraryNode } from '../library/model';
import type { Library } from '../library/Library';
import { useWorkspace } from '../sync/workspace';
import { Choices, ChoiceWords } from '../ui/Choices';
import { Dialog } from '../ui/Dialog';

const mostShown = 100;

/** Chooses a notebook of a library by typing a part of its name. */
export function NotebookChooser({
  library,
  without,
  title,
  onChoose,
  onClose,
}: {
  library: Library;
  without: string;
  title: string;
  onChoose: (notebook: LibraryNode) => void;
  onClose: () => void;
}) {
  const { core } = useWorkspace();
  const [typed, setTyped] = useState('');
  const [at, setAt] = useState(0);
  const wanted = core.LibraryBridge.Fold(typed);
  const found = [...library.nodes.values()]
    .filter((node) => node.kind === 'notebook' && !node.inBin && node.id !== without && node.folded.includes(wanted))
    .slice(0, mostShown);
  const choose = (node: LibraryNode | undefined) => {
    if (!node) return;
    onChoose(node);
    onClose();
  };
  return (
    <Dialog title={title} onClose={onClose}>
      <Choices
        label="Notebook"
        testId="notebook"
        typed={typed}
        onTyped={(text) => (setTyped(text), setAt(0))}
        choices={found.map((node) => ({
          key: node.id,
          name: node.name,
          face: <ChoiceWords words={node.name} about={library.find(node.parent)?.name} />,
        }))}
        at={at}
        onAt={setAt}
        onEnter={(index) => choose(found[index])}
        onPress={(index) => choose(found[index])}
        height={300}
      />
    </Dialog>
  );
}
