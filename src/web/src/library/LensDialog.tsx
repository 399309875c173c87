import { may } from '../data/rights';
import { t } from '@lingui/core/macro';
import { useState } from 'react';
import type { Space } from '../server/session';
import { FormDialog } from '../ui/FormDialog';
import { IconField } from '../ui/looks';
import { NameField } from '../ui/naming';

export interface LensLook {
  name: string;
  icon: string;
  shared: boolean;
}

/** Names a lens and says who has it: only its maker, or everybody in the group. */
export function LensDialog({
  space,
  look,
  confirm,
  onConfirm,
  onClose,
}: {
  space: Space;
  look?: LensLook;
  confirm: string;
  onConfirm: (look: LensLook) => void;
  onClose: () => void;
}) {
  const [chosen, setChosen] = useState<LensLook>(look ?? { name: '', icon: 'glass', shared: false });
  return (
    <FormDialog
      title={look ? t`Lens` : t`Save as a lens`}
      confirm={confirm}
      onConfirm={() => onConfirm(chosen)}
      onClose={onClose}
    >
      {(problem) => (
        <>
          <p className="mb-3 text-quiet">{t`A lens asks this question again whenever you open it, so it is always up to date.`}</p>
          <NameField value={chosen.name} onChange={(name) => setChosen({ ...chosen, name })} problem={problem} />
          <IconField value={chosen.icon} onChange={(icon) => setChosen({ ...chosen, icon })} needed />
          {!space.personal && !look && (
            <label className="mt-3 flex min-h-10 items-center gap-2.5">
              <input
                type="checkbox"
                className="checkbox checkbox-primary checkbox-sm"
                data-testid="lens-shared"
                disabled={!may(space, 'Write')}
                checked={chosen.shared}
                onChange={(event) => setChosen({ ...chosen, shared: event.target.checked })}
              />
              {t`Share it with ${space.name}`}
            </label>
          )}
        </>
      )}
    </FormDialog>
  );
}
