import { t } from '@lingui/core/macro';
import { useState } from 'react';
import { useLibraries } from '../data/useLibrary';
import { useSession } from '../server/session';
import { useWorkspace } from '../data/useWorkspace';
import { Choices, ChoiceWords } from '../ui/Choices';
import { Dialog } from '../ui/Dialog';
import { lastPageIn, type OpenNotebook, useOpenNotebooks } from '../data/openNotebooks';
import { useNotebook } from '../data/useNotebook';

interface Choice {
  /** A notebook that is open in another place. */
  isOpen?: boolean;
  at: OpenNotebook;
  words: string;
  about: string;
}

const mostShown = 60;

/** Chooses what lies beside: another page of this notebook, an open notebook, or any other, by typing a part of its name. */
export function BesideDialog({
  here,
  onChoose,
  onClose,
}: {
  here: OpenNotebook;
  onChoose: (at: OpenNotebook) => void;
  onClose: () => void;
}) {
  const { spaces } = useSession();
  const { core } = useWorkspace();
  const libraries = useLibraries();
  const open = useOpenNotebooks();
  const notebook = useNotebook(here.space, here.notebook);
  const [typed, setTyped] = useState('');
  const [at, setAt] = useState(0);
  if (!libraries || !notebook) return null;
  const wanted = core.LibraryBridge.Fold(typed);
  const pages: Choice[] = notebook.pages
    .filter((page) => page.id !== here.page)
    .map((page) => ({
      at: { ...here, page: page.id },
      words: page.title || t`Page ${page.number}`,
      about: t`page ${page.number} of this notebook`,
    }));
  const all = spaces.flatMap((space) =>
    [...libraries.get(space.id)!.nodes.values()]
      .filter((node) => node.kind === 'notebook' && !node.inBin && node.id !== here.notebook)
      .map((node) => ({ space, node })),
  );
  const isOpen = (id: string) => open.some((one) => one.notebook === id);
  const notebooks: Choice[] = all
    .sort((a, b) => Number(isOpen(b.node.id)) - Number(isOpen(a.node.id)))
    .map(({ space, node }) => ({
      at: { space: space.id, notebook: node.id, page: lastPageIn(node.id) },
      words: node.name,
      isOpen: isOpen(node.id),
      about: isOpen(node.id) ? t`open now` : space.name,
    }));
  const found = [...notebooks.filter((one) => one.isOpen), ...pages, ...notebooks.filter((one) => !one.isOpen)]
    .filter((choice) => wanted === '' || core.LibraryBridge.Fold(choice.words).includes(wanted))
    .slice(0, mostShown);
  const choose = (choice: Choice | undefined) => {
    if (!choice) return;
    onChoose(choice.at);
    onClose();
  };
  return (
    <Dialog title={t`Beside this page`} onClose={onClose}>
      <Choices
        label={t`Page or notebook`}
        testId="beside"
        typed={typed}
        onTyped={(text) => (setTyped(text), setAt(0))}
        choices={found.map((choice) => ({
          key: `${choice.at.notebook}${choice.at.page}`,
          name: choice.words,
          face: <ChoiceWords words={choice.words} about={choice.about} />,
        }))}
        at={at}
        onAt={setAt}
        onEnter={(index) => choose(found[index])}
        onPress={(index) => choose(found[index])}
        height={340}
      />
    </Dialog>
  );
}
