import { t } from '@lingui/core/macro';
import { useState } from 'react';
import { paperChoices } from '../model/drawing';
import { colours, defaultPaper } from '../model/items';
import { CoverField } from '../papers/CoverField';
import { Cover } from '../papers/Cover';
import { PaperField } from '../papers/PaperField';
import { useWorkspace } from '../data/useWorkspace';
import { FormDialog } from '../ui/FormDialog';
import { ColourField, IconField } from '../ui/looks';
import { NameField } from '../ui/naming';

export interface FolderLook {
  name: string;
  colour: string;
  icon: string;
}

/** A folder's name, colour and icon. */
export function FolderDialog({
  title,
  confirm,
  look,
  onConfirm,
  onClose,
}: {
  title: string;
  confirm: string;
  look: FolderLook;
  onConfirm: (look: FolderLook) => void;
  onClose: () => void;
}) {
  const [chosen, setChosen] = useState(look);
  return (
    <FormDialog title={title} confirm={confirm} onConfirm={() => onConfirm(chosen)} onClose={onClose}>
      {(problem) => (
        <>
          <NameField value={chosen.name} onChange={(name) => setChosen({ ...chosen, name })} problem={problem} />
          <ColourField value={chosen.colour} onChange={(colour) => setChosen({ ...chosen, colour })} />
          <IconField value={chosen.icon} onChange={(icon) => setChosen({ ...chosen, icon })} />
        </>
      )}
    </FormDialog>
  );
}

export interface NotebookLook {
  name: string;
  colour: string;
  cover: string;
  paper: string;
  /** The picture on the cover; empty for none. */
  source?: string;
}

/** A notebook's name, paper and cover, seen as they are chosen. */
export function NotebookDialog({
  title,
  confirm,
  look,
  space,
  onConfirm,
  onClose,
}: {
  title: string;
  confirm: string;
  look?: Partial<NotebookLook>;
  space?: string;
  onConfirm: (look: NotebookLook) => Promise<void>;
  onClose: () => void;
}) {
  const { core } = useWorkspace();
  const { covers } = paperChoices(core);
  const [chosen, setChosen] = useState<NotebookLook>({
    name: '',
    colour: colours[0],
    cover: 'rings',
    ...look,
    paper: look?.paper || defaultPaper,
  });
  return (
    <FormDialog title={title} confirm={confirm} onConfirm={() => onConfirm(chosen)} onClose={onClose}>
      {(problem) => (
        <>
          <div className="flex gap-6">
            <Cover node={{ ...chosen, name: chosen.name || t`Untitled` }} space={space} />
            <div className="min-w-0 grow">
              <NameField value={chosen.name} onChange={(name) => setChosen({ ...chosen, name })} problem={problem} />
              <div className="mt-3">
                <PaperField
                  label={t`Paper`}
                  value={chosen.paper}
                  {...(space ? { space } : {})}
                  onChange={(paper) => setChosen({ ...chosen, paper })}
                />
              </div>
            </div>
          </div>
          <ColourField value={chosen.colour} onChange={(colour) => setChosen({ ...chosen, colour })} />
          <CoverField
            look={chosen}
            covers={covers}
            {...(space ? { space } : {})}
            onChange={(change) => setChosen({ ...chosen, ...change })}
          />
        </>
      )}
    </FormDialog>
  );
}
