import { t } from '@lingui/core/macro';
import { useState } from 'react';
import { properties } from '../core/runtime';
import { ColourField, IconField } from '../ui/looks';
import { NameField } from '../ui/naming';
import type { Library } from '../data/Library';
import { FormDialog } from '../ui/FormDialog';

/** Makes a kind of mark of one's own for a library: a name, an icon, a colour. */
export function MarkKindDialog({
  library,
  onMade,
  onClose,
}: {
  library: Library;
  onMade: (kind: string) => void;
  onClose: () => void;
}) {
  const [look, setLook] = useState({ name: '', icon: 'bell', colour: 'plum' });
  return (
    <FormDialog
      title={t`A kind of mark`}
      confirm={t`Make it`}
      onConfirm={() =>
        onMade(
          library.newNode('markKind', look.name, { [properties.icon]: look.icon, [properties.colour]: look.colour }),
        )
      }
      onClose={onClose}
    >
      {(problem) => (
        <>
          <NameField value={look.name} onChange={(name) => setLook({ ...look, name })} problem={problem} />
          <ColourField value={look.colour} onChange={(colour) => setLook({ ...look, colour })} />
          <IconField value={look.icon} onChange={(icon) => setLook({ ...look, icon })} needed />
        </>
      )}
    </FormDialog>
  );
}
