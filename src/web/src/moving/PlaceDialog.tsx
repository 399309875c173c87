import { may } from '../data/rights';
import { t } from '@lingui/core/macro';
import { NotebookIcon, RowsIcon } from '@phosphor-icons/react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { root } from '../model/items';
import { useLibraries } from '../data/useLibrary';
import { useTitled } from '../data/useTitled';
import { useSession } from '../server/session';
import { useWorkspace } from '../data/useWorkspace';
import { Choices, ChoiceWords } from '../ui/Choices';
import { FormDialog, Problem } from '../ui/FormDialog';
import { type EntryPlace, type SectionPlace, sectionsOf } from '../data/sections';

interface PlaceDialogProps {
  title: string;
  confirm: string;
  /** The notebook that they come from; its sections stand first. */
  space: string;
  notebook: string;
  /** What is moved, and cannot be its own place. */
  without: string[];
  /** Whether other notebooks can be chosen, too. */
  onlyHere?: boolean;
  /** Answers with a sentence when it cannot go there. */
  onPlace: (place: EntryPlace) => Promise<string>;
  onClose: () => void;
}

const mostShown = 120;

/** Chooses a notebook or a section of one, in any library that one may write in: by typing a part of its name, by arrow keys, or by pressing it. */
export function PlaceDialog({
  title,
  confirm,
  space: ownSpace,
  notebook: own,
  without,
  onlyHere = false,
  onPlace,
  onClose,
}: PlaceDialogProps) {
  const { spaces } = useSession();
  const workspace = useWorkspace();
  const libraries = useLibraries();
  const [typed, setTyped] = useState('');
  const [at, setAt] = useState(0);
  const [here, setHere] = useState<SectionPlace[]>([]);
  const form = useRef<HTMLDivElement>(null);
  const { Fold } = workspace.core.LibraryBridge;
  const skipped = without.join();
  useEffect(() => {
    let ended = false;
    void sectionsOf(workspace, ownSpace, own, skipped.split(',')).then((found) => !ended && setHere(found));
    return () => {
      ended = true;
    };
  }, [workspace, ownSpace, own, skipped]);
  const writable = useMemo(
    () =>
      spaces
        .filter((space) => may(space, 'Write') && (!onlyHere || space.id === ownSpace))
        .sort((a, b) => Number(b.id === ownSpace) - Number(a.id === ownSpace)),
    [spaces, ownSpace, onlyHere],
  );
  const notebooks = useMemo(
    () =>
      writable.flatMap((space) =>
        [...(libraries.get(space.id)?.nodes.values() ?? [])]
          .filter((node) => node.kind === 'notebook' && !node.inBin && node.id !== own && !onlyHere)
          .sort((a, b) => (a.natural < b.natural ? -1 : 1))
          .map((node) => ({
            space: space.id,
            notebook: node.id,
            parent: root,
            words: node.name,
            about: space.name,
            folded: node.folded,
          })),
      ),
    [writable, libraries, own, onlyHere],
  );
  const ownNode = libraries.get(ownSpace)?.find(own);
  const elsewhere = useTitled(onlyHere ? [] : writable.map((space) => space.id), 'section', typed);
  const wanted = Fold(typed);
  const fits = (words: string) => wanted === '' || Fold(words).includes(wanted);
  const choices = [
    ...(ownNode && fits(ownNode.name)
      ? [{ space: ownSpace, notebook: own, parent: root, words: ownNode.name, about: t`this notebook`, indent: 0 }]
      : []),
    ...here
      .filter((place) => fits(place.words))
      .map((place) => ({ ...place, about: wanted ? 'section' : '', indent: wanted ? 0 : 18 * (place.depth + 1) })),
    ...notebooks
      .filter((place) => wanted === '' || place.folded.includes(wanted))
      .map((place) => ({ ...place, indent: 0 })),
    ...elsewhere
      .filter((item) => fits(item.title) && item.notebook !== own && !without.includes(item.id))
      .map((item) => ({
        space: item.space,
        notebook: item.notebook,
        parent: item.id,
        words: item.title,
        about: t`section of ${item.notebookName}`,
        indent: 0,
      })),
  ].slice(0, mostShown);
  const chosen = choices[Math.min(at, choices.length - 1)];
  return (
    <FormDialog
      title={title}
      confirm={confirm}
      disabled={!chosen}
      onConfirm={async () => {
        const refused = await onPlace(chosen!);
        if (refused) throw new Error(refused);
      }}
      onClose={onClose}
    >
      {(problem) => (
        <div ref={form}>
          <Choices
            label={onlyHere ? t`Section` : t`Notebook or section`}
            testId="place"
            typed={typed}
            onTyped={(text) => (setTyped(text), setAt(0))}
            choices={choices.map((choice) => ({
              key: `${choice.space}${choice.notebook}${choice.parent}`,
              name: choice.words,
              indent: choice.indent,
              face: (
                <>
                  {choice.parent === root ? (
                    <NotebookIcon size={18} weight="light" className="shrink-0" />
                  ) : (
                    <RowsIcon size={18} weight="light" className="shrink-0" />
                  )}
                  <ChoiceWords words={choice.words} about={choice.about} />
                </>
              ),
            }))}
            at={Math.min(at, choices.length - 1)}
            onAt={setAt}
            onEnter={() => form.current?.closest('form')?.requestSubmit()}
            onPress={setAt}
            height={300}
            none={t`No notebook or section is called that.`}
          />
          <Problem words={problem} testId="place-problem" />
        </div>
      )}
    </FormDialog>
  );
}
