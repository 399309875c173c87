import { t } from '@lingui/core/macro';
import { useState } from 'react';
import { keepStamp, useStamps } from '../data/stamps';
import { useWorkspace } from '../data/useWorkspace';
import type { OpenDocument } from '../sync/openDocument';
import { Toggle } from '../ui/Button';
import { FormDialog } from '../ui/FormDialog';
import { NameField } from '../ui/naming';
import { say } from '../ui/saying';

/** Keeps things of a page as a stamp: for oneself, or for a group. */
export function StampDialog({
  page,
  items,
  onClose,
}: {
  page: OpenDocument;
  items: readonly string[];
  onClose: () => void;
}) {
  const workspace = useWorkspace();
  const { shelves, stamps } = useStamps(workspace.core);
  const [name, setName] = useState('');
  const [category, setCategory] = useState('');
  const [space, setSpace] = useState(shelves[0]?.library.space);
  const shelf = shelves.find(({ library }) => library.space === space) ?? shelves[0];
  const categories = [...new Set(stamps.filter(({ kept }) => kept).map((one) => one.category))];
  return (
    <FormDialog
      title={t`Keep as a stamp`}
      confirm={t`Keep it`}
      disabled={!shelf}
      onConfirm={async () => {
        const file = workspace.core.StampBridge.Keep(page.handle, items);
        await keepStamp(workspace, shelf!.library, file, page.space, name, category);
        say(t`“${name.trim()}” is in the stamp box.`);
      }}
      onClose={onClose}
    >
      {(problem) => (
        <div className="grid gap-3">
          <NameField value={name} onChange={setName} problem={problem} />
          <label>
            <span className="mb-1 block font-semibold">{t`Category`}</span>
            <input
              className="field"
              value={category}
              list="stamp-categories"
              data-testid="stamp-category"
              placeholder={t`Clock parts`}
              onChange={(event) => setCategory(event.target.value)}
            />
            <datalist id="stamp-categories">
              {categories.map((one) => (
                <option key={one} value={one}>
                  {one}
                </option>
              ))}
            </datalist>
          </label>
          <fieldset>
            <legend className="mb-1 font-semibold">{t`For`}</legend>
            <div className="flex flex-wrap gap-1.5">
              {shelves.map(({ library, name: shelfName }) => (
                <Toggle
                  key={library.space}
                  on={library === shelf?.library}
                  className="grow"
                  data-testid="stamp-shelf"
                  onClick={() => setSpace(library.space)}
                >
                  {shelfName}
                </Toggle>
              ))}
            </div>
          </fieldset>
        </div>
      )}
    </FormDialog>
  );
}
