import { t } from '@lingui/core/macro';
import { useState } from 'react';
import { ColourField } from '../ui/looks';
import { Radio } from '../ui/Labelled';
import { FormDialog } from '../ui/FormDialog';
import type { Touch } from '../server/session';
import { touchWords } from './groups';
import { Switch } from '../ui/Segments';
import { NameField } from '../ui/naming';

const touches: Touch[] = ['everything', 'own', 'add'];

/** Names a group and gives it a colour, when it is made or later. */
export function GroupDialog({
  title,
  confirm,
  name: given = '',
  colour: had = 'sky',
  touch: chosen,
  isPastClosed: wasClosed = false,
  onConfirm,
  onClose,
}: {
  title: string;
  confirm: string;
  name?: string;
  colour?: string | undefined;
  /** Given for a group that is there: what its writers may do to what others wrote. */
  touch?: Touch;
  /** The same: whether its readers are shown pages as they are, and not as they were. */
  isPastClosed?: boolean;
  onConfirm: (name: string, colour: string, touch: Touch, isPastClosed: boolean) => Promise<unknown>;
  onClose: () => void;
}) {
  const [name, setName] = useState(given);
  const [colour, setColour] = useState(had || 'sky');
  const [isPastClosed, setPastClosed] = useState(wasClosed);
  const [touch, setTouch] = useState<Touch>(chosen ?? 'everything');
  return (
    <FormDialog
      title={title}
      confirm={confirm}
      onConfirm={async () => void (await onConfirm(name, colour, touch, isPastClosed))}
      onClose={onClose}
    >
      {(problem) => (
        <>
          <NameField value={name} onChange={setName} problem={problem} label={t`What the group is called`} />
          <ColourField value={colour} onChange={setColour} />
          {chosen && (
            <fieldset className="mt-4">
              <legend className="mb-1 font-semibold">{t`What writers may do to what is there`}</legend>
              {touches.map((one) => (
                <Radio key={one} name="touch" on={touch === one} testId={`touch-${one}`} onChoose={() => setTouch(one)}>
                  {touchWords[one]}
                </Radio>
              ))}
              <p className="text-[13px] text-quiet">{t`Owners change everything in any case.`}</p>
            </fieldset>
          )}
          {chosen && (
            <div className="mt-4">
              <Switch
                label={t`Readers see pages as they are, and not as they were`}
                on={isPastClosed}
                testId="past-closed"
                onChange={setPastClosed}
              />
            </div>
          )}
        </>
      )}
    </FormDialog>
  );
}
