import { t } from '@lingui/core/macro';
import { useState } from 'react';
import type { NotebookEntry } from '../model/items';
import { ColourField } from '../ui/looks';
import { ConfirmDialog } from '../ui/naming';

/** Gives a section a colour. */
export function SectionColour({
  entry,
  onConfirm,
  onClose,
}: {
  entry: NotebookEntry;
  onConfirm: (colour: string) => void;
  onClose: () => void;
}) {
  const [colour, setColour] = useState(entry.colour || 'spruce');
  return (
    <ConfirmDialog
      title={t`Colour of “${entry.title}”`}
      confirm={t`Use this colour`}
      onConfirm={() => onConfirm(colour)}
      onClose={onClose}
    >
      <ColourField value={colour} onChange={setColour} />
    </ConfirmDialog>
  );
}
