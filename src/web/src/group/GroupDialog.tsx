import { t } from '@lingui/core/macro';
import { useState } from 'react';
import { ColourField } from '../ui/looks';
import { FormDialog } from '../ui/FormDialog';
import { NameField } from '../ui/naming';

/** Names a group and gives it a colour, when it is made or later. */
export function GroupDialog({
  title,
  confirm,
  name: given = '',
  colour: had = 'sky',
  onConfirm,
  onClose,
}: {
  title: string;
  confirm: string;
  name?: string;
  colour?: string | undefined;
  onConfirm: (name: string, colour: string) => Promise<unknown>;
  onClose: () => void;
}) {
  const [name, setName] = useState(given);
  const [colour, setColour] = useState(had || 'sky');
  return (
    <FormDialog
      title={title}
      confirm={confirm}
      onConfirm={async () => void (await onConfirm(name, colour))}
      onClose={onClose}
    >
      {(problem) => (
        <>
          <NameField value={name} onChange={setName} problem={problem} label={t`What the group is called`} />
          <ColourField value={colour} onChange={setColour} />
        </>
      )}
    </FormDialog>
  );
}
