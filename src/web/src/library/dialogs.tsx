import { type ReactNode, useId, useState } from 'react';
import { sentenceOf } from '../core/runtime';
import { paperChoices } from '../papers/drawing';
import { PaperField } from '../papers/PaperField';
import { useWorkspace } from '../sync/workspace';
import { FormDialog } from '../ui/FormDialog';
import { Cover } from './Cover';
import { CoverField } from './CoverField';
import { NodeIcon, nodeIcons } from './icons';
import { colours, defaultPaper } from './model';
import { fillOf } from './palette';

/** Asks for a name; what Core refuses is said under the field. */
export function NameDialog({
  title,
  confirm,
  name: given = '',
  label,
  onConfirm,
  onClose,
}: {
  title: string;
  confirm: string;
  name?: string;
  label?: string;
  onConfirm: (name: string) => void | Promise<void>;
  onClose: () => void;
}) {
  const [name, setName] = useState(given);
  return (
    <FormDialog title={title} confirm={confirm} onConfirm={() => onConfirm(name)} onClose={onClose}>
      {(problem) => <NameField value={name} onChange={setName} problem={problem} {...(label ? { label } : {})} />}
    </FormDialog>
  );
}

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
            <Cover node={{ ...chosen, name: chosen.name || 'Untitled' }} space={space} />
            <div className="min-w-0 grow">
              <NameField value={chosen.name} onChange={(name) => setChosen({ ...chosen, name })} problem={problem} />
              <div className="mt-3">
                <PaperField
                  label="Paper"
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

export function ColourField({ value, onChange }: { value: string; onChange: (colour: string) => void }) {
  return (
    <fieldset className="mt-3 flex gap-1">
      <legend className="mb-1 font-semibold">Colour</legend>
      {colours.map((one) => (
        <button
          key={one}
          type="button"
          aria-label={one}
          title={one}
          aria-pressed={value === one}
          onClick={() => onChange(one)}
          className="grid size-10 place-items-center rounded-full"
        >
          <span
            className={`size-7 rounded-full ${fillOf[one]} ${value === one ? 'outline-2 outline-offset-2 outline-primary' : ''}`}
          />
        </button>
      ))}
    </fieldset>
  );
}

export function IconField({
  value,
  onChange,
  needed,
}: {
  value: string;
  onChange: (icon: string) => void;
  needed?: boolean;
}) {
  return (
    <fieldset className="mt-3 flex flex-wrap gap-1">
      <legend className="mb-1 font-semibold">Icon</legend>
      {!needed && (
        <button
          type="button"
          aria-pressed={value === ''}
          onClick={() => onChange('')}
          className={`h-10 rounded-md border px-2.5 ${value === '' ? 'border-primary font-semibold' : 'border-base-300'}`}
        >
          None
        </button>
      )}
      {Object.keys(nodeIcons).map((one) => (
        <button
          key={one}
          type="button"
          aria-label={one}
          title={one}
          aria-pressed={value === one}
          onClick={() => onChange(one)}
          className={`grid size-10 place-items-center rounded-md border ${value === one ? 'border-primary bg-base-200' : 'border-transparent hover:border-base-300'}`}
        >
          <NodeIcon name={one} size={22} />
        </button>
      ))}
    </fieldset>
  );
}

/** Asks before something that cannot be taken back, or that changes much. */
export function ConfirmDialog({
  title,
  children,
  confirm,
  onConfirm,
  onClose,
}: {
  title: string;
  children: ReactNode;
  confirm: string;
  onConfirm: () => void;
  onClose: () => void;
}) {
  return (
    <FormDialog title={title} confirm={confirm} onConfirm={onConfirm} onClose={onClose}>
      {() => children}
    </FormDialog>
  );
}

export function NameField({
  value,
  onChange,
  problem,
  label = 'Name',
}: {
  value: string;
  onChange: (value: string) => void;
  problem: string;
  label?: string;
}) {
  const id = useId();
  return (
    <>
      <label htmlFor={id} className="mb-1 block font-semibold">
        {label}
      </label>
      <input
        id={id}
        className="field"
        value={value}
        autoFocus
        data-testid="name-input"
        onChange={(event) => onChange(event.target.value)}
      />
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
