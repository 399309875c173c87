import { Button } from '../ui/Button';
import { t } from '@lingui/core/macro';
import { PlusIcon, XIcon } from '@phosphor-icons/react';
import { useState } from 'react';
import { useWorkspace } from '../data/useWorkspace';
import { Choices } from '../ui/Choices';
import { Dialog } from '../ui/Dialog';
import { attempt } from '../ui/naming';
import type { Tag } from '../model/items';
import { TagChip } from './TagChip';
import type { Library } from '../data/Library';

/** Puts tags on things and takes them off: type a part of a name and choose, or type a new one, nested with a slash. */
export function TagDialog({
  title,
  library,
  carried,
  onSet,
  onClose,
}: {
  title: string;
  library: Library;
  carried: Tag[];
  onSet: (tag: string, on: boolean) => void;
  onClose: () => void;
}) {
  const { core } = useWorkspace();
  const [typed, setTyped] = useState('');
  const [at, setAt] = useState(0);
  const [problem, setProblem] = useState('');
  const { Fold } = core.LibraryBridge;
  const wanted = Fold(typed);
  const known = library.tags.filter((tag) => !carried.includes(tag) && Fold(tag.path).includes(wanted)).slice(0, 30);
  const isNew = wanted !== '' && !library.tags.some((tag) => Fold(tag.path) === wanted);
  const choices = [
    ...known.map((tag) => ({ tag: tag as Tag | undefined, words: tag.path })),
    ...(isNew ? [{ tag: undefined, words: typed.trim() }] : []),
  ];
  const choose = (index: number) => {
    const choice = choices[index];
    if (!choice) return;
    const refused = attempt(() => onSet(choice.tag?.id ?? library.tagAt(choice.words), true));
    setProblem(refused);
    if (!refused) setTyped('');
    setAt(0);
  };
  return (
    <Dialog title={title} onClose={onClose}>
      <div className="flex min-h-10 flex-wrap gap-2" data-testid="carried-tags">
        {carried.map((tag) => (
          <button
            key={tag.id}
            type="button"
            aria-label={t`Take off ${tag.path}`}
            title={t`Take off`}
            className="flex min-h-10 items-center gap-1.5"
            onClick={() => onSet(tag.id, false)}
          >
            <TagChip tag={tag}>
              <XIcon size={13} />
            </TagChip>
          </button>
        ))}
        {carried.length === 0 && <p className="py-2 text-quiet">{t`No tags yet.`}</p>}
      </div>
      <div className="mt-3">
        <Choices
          label={t`Tag`}
          placeholder={t`exam/level 2`}
          testId="tag"
          typed={typed}
          onTyped={(text) => (setTyped(text), setAt(0))}
          choices={choices.map(({ tag, words }) => ({
            key: tag?.id ?? 'new',
            name: words,
            face: tag ? (
              <TagChip tag={tag} />
            ) : (
              <>
                <PlusIcon size={16} /> {t`Make the tag “${words}”`}
              </>
            ),
          }))}
          at={at}
          onAt={setAt}
          onEnter={choose}
          onPress={choose}
          height={220}
          none={t`No tags here yet.`}
        />
      </div>
      {problem && (
        <p role="alert" className="pt-1.5 text-error">
          {problem}
        </p>
      )}
      <div className="mt-4 flex justify-end">
        <Button look="primary" data-testid="tags-done" onClick={onClose}>{t`Done`}</Button>
      </div>
    </Dialog>
  );
}
