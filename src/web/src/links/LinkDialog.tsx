import { Button } from '../ui/Button';
import { t } from '@lingui/core/macro';
import { useState } from 'react';
import type { NotebookEntry } from '../model/items';
import { useLibraries } from '../data/useLibrary';
import { useTitled } from '../data/useTitled';
import { useOpenNotebooks } from '../data/openNotebooks';
import type { Notebook } from '../data/useNotebook';
import { useSession } from '../server/session';
import { useWorkspace } from '../data/useWorkspace';
import { Choices, ChoiceWords } from '../ui/Choices';
import { Dialog } from '../ui/Dialog';
import { Problem } from '../ui/FormDialog';
import { useHeadings } from './useHeadings';
import { useNotebookSpots } from '../data/useNotebookSpots';
import { type Target, targetOfAddress, writeTarget } from '../model/target';
import { sentenceOf } from '../core/runtime';

interface Choice {
  target: Target;
  words: string;
  about: string;
}

const mostShown = 80;
/** Pixels. */
const choiceHeight = 44;

/** Chooses where a link leads: an address, or by a part of its name a page, section or notebook; pages open lately come first. */
export function LinkDialog({
  here,
  notebook,
  onChoose,
  onClose,
}: {
  here: { space: string; page: string };
  notebook: Notebook;
  onChoose: (target: string, title: string) => void;
  onClose: () => void;
}) {
  const { core } = useWorkspace();
  const { spaces } = useSession();
  const libraries = useLibraries();
  const open = useOpenNotebooks();
  const [typed, setTyped] = useState('');
  const [at, setAt] = useState(0);
  const [called, setCalled] = useState('');
  const [problem, setProblem] = useState('');
  const { Fold } = core.LibraryBridge;
  const wanted = Fold(typed);
  const address = targetOfAddress(typed);
  const own = { space: here.space, notebook: notebook.id };
  const ofEntry = (entry: NotebookEntry): Choice =>
    entry.kind === 'page'
      ? {
          target: { kind: 'page', ...own, page: entry.id },
          words: entry.title || t`Page ${entry.number}`,
          about: t`page ${entry.number}`,
        }
      : { target: { kind: 'section', ...own, section: entry.id }, words: entry.title, about: 'section' };
  const recent: Choice[] = open.flatMap((one) => {
    const node = libraries.get(one.space)?.find(one.notebook);
    return node && !node.inBin && one.page && one.page !== here.page
      ? [
          {
            target: { kind: 'page', space: one.space, notebook: one.notebook, page: one.page },
            words: t`${node.name}, where you left it`,
            about: t`open now`,
          },
        ]
      : [];
  });
  const notebooks: Choice[] = spaces.flatMap((space) =>
    [...libraries.get(space.id)!.nodes.values()]
      .filter((node) => node.kind === 'notebook' && !node.inBin)
      .map((node) => ({
        target: { kind: 'notebook' as const, space: space.id, notebook: node.id },
        words: node.name,
        about: t`notebook, ${space.name}`,
      })),
  );
  const all = spaces.map((space) => space.id);
  const [pages, sections] = [useTitled(all, 'page', typed), useTitled(all, 'section', typed)];
  const ownHeadings = useNotebookSpots(here.space, notebook.id, notebook.pages, here.page)
    .filter((spot) => spot.kind === 'heading' && spot.title)
    .map((spot): Choice => ({
      target: { kind: 'mark', ...own, page: spot.page, mark: spot.id },
      words: spot.title!,
      about: t`heading on page ${notebook.find(spot.page)?.number ?? ''}`,
    }));
  const otherHeadings = useHeadings(all, typed)
    .filter((spot) => spot.notebook !== notebook.id)
    .map((spot): Choice => ({
      target: { kind: 'mark', space: spot.space, notebook: spot.notebook, page: spot.page, mark: spot.id },
      words: spot.title,
      about: t`heading in ${spot.notebookName}`,
    }));
  const elsewhere: Choice[] = [...pages, ...sections].flatMap(
    ({ space, notebook: holder, id, kind, title, notebookName }) =>
      holder === notebook.id
        ? []
        : [
            {
              target:
                kind === 'page'
                  ? { kind: 'page', space, notebook: holder, page: id }
                  : { kind: 'section', space, notebook: holder, section: id },
              words: title,
              about: kind === 'page' ? t`page of ${notebookName}` : t`section of ${notebookName}`,
            },
          ],
  );
  const found = [
    ...recent,
    ...notebook.entries.filter((entry) => entry.id !== here.page).map(ofEntry),
    ...ownHeadings,
    ...notebooks,
    ...elsewhere,
    ...otherHeadings,
  ].filter((choice) => wanted === '' || Fold(choice.words).includes(wanted));
  const asAddress: Choice[] = address
    ? [
        {
          target: address,
          words: address.kind === 'web' ? address.address : t`The place that was copied`,
          about: address.kind === 'web' ? t`web` : t`inside`,
        },
      ]
    : [];
  // What is surely an address comes first; what only looks like one, behind what is called so.
  const isSure = /^(https?:|mailto:|www\.)/i.test(typed.trim());
  const choices = (isSure ? [...asAddress, ...found] : [...found, ...asAddress]).slice(0, mostShown);
  const isWeb = choices[at]?.target.kind === 'web';
  const choose = (choice: Choice | undefined) => {
    if (!choice) return setProblem(t`Type an address, such as example.org, or a part of a name.`);
    try {
      const title = (choice.target.kind === 'web' && called.trim()) || choice.words;
      onChoose(writeTarget(choice.target), title.slice(0, 200));
      onClose();
    } catch (refused) {
      setProblem(sentenceOf(refused));
    }
  };
  return (
    <Dialog title={t`Link to`} onClose={onClose}>
      <Choices
        label={t`A page, notebook or address`}
        placeholder={t`Type a part of its name, or paste a link`}
        testId="link"
        typed={typed}
        onTyped={(text) => (setTyped(text), setAt(0), setProblem(''))}
        choices={choices.map((choice, i) => ({
          key: `${i}${writeTarget(choice.target)}`,
          name: choice.words,
          face: <ChoiceWords words={choice.words} about={choice.about} />,
        }))}
        at={at}
        onAt={setAt}
        onEnter={(index) => choose(choices[index])}
        onPress={(index) => choose(choices[index])}
        height={isWeb ? Math.min(220, choices.length * choiceHeight) : 320}
      />
      {isWeb && (
        <>
          <label className="mt-4 block font-semibold">
            {t`What the link is called`}
            <input
              className="field mt-1 font-normal"
              value={called}
              placeholder={t`As its address`}
              maxLength={200}
              data-testid="link-called"
              onChange={(event) => (setCalled(event.target.value), setProblem(''))}
              onKeyDown={(event) => event.key === 'Enter' && (event.preventDefault(), choose(choices[at]))}
            />
          </label>
          <div className="mt-5 flex justify-end gap-2">
            <Button onClick={onClose}>{t`Cancel`}</Button>
            <Button
              look="primary"
              data-testid="link-confirm"
              onClick={() => choose(choices[at])}
            >{t`Link to it`}</Button>
          </div>
        </>
      )}
      <Problem words={problem} testId="link-problem" />
    </Dialog>
  );
}
