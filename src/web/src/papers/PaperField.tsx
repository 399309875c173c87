import { within } from '../words/coreWords';
import { t } from '@lingui/core/macro';
import { useState } from 'react';
import { useWorkspace } from '../data/useWorkspace';
import { paperChoices, wordsOfPaper } from '../model/drawing';
import { PaperDialog } from './PaperDialog';
import { PaperPicture } from './PaperPicture';

const other = 'other';
const offered = ['ruled-710', 'ruled-640', 'ruled-870', 'squared-500', 'dotted-500', 'cornell-710', 'blank-710'];

/** A paper to be chosen within a form: the usual ones at once, any other one press further. */
export function PaperField({
  label,
  value,
  space,
  onChange,
  testId = 'paper',
  disabled,
  isLabelHidden,
}: {
  label: string;
  value: string;
  space?: string;
  onChange: (paper: string) => void;
  testId?: string;
  disabled?: boolean;
  isLabelHidden?: boolean;
}) {
  const { core } = useWorkspace();
  const [choosing, setChoosing] = useState(false);
  const usual = paperChoices(core)
    .ready.filter((one) => offered.includes(one.design))
    .map((one) => ({ paper: `a4-${one.design}`, words: `A4, ${within(one.words)}` }));
  return (
    <>
      <div className="flex items-end gap-2.5">
        <PaperPicture paper={value} width={32} height={44} {...(space ? { space } : {})} />
        <label className="block min-w-0 grow">
          <span className={isLabelHidden ? 'sr-only' : 'mb-1 block font-semibold'}>{label}</span>
          <select
            className="select h-11 w-full border-base-300 bg-base-100"
            value={value}
            disabled={disabled}
            data-testid={testId}
            onChange={(event) => (event.target.value === other ? setChoosing(true) : onChange(event.target.value))}
          >
            {usual.map(({ paper, words }) => (
              <option key={paper} value={paper}>
                {words}
              </option>
            ))}
            {!usual.some(({ paper }) => paper === value) && <option value={value}>{wordsOfPaper(core, value)}</option>}
            <option value={other}>{t`Another paper …`}</option>
          </select>
        </label>
      </div>
      {choosing && (
        <PaperDialog
          title={label}
          confirm={t`Take this paper`}
          value={value}
          {...(space ? { space } : {})}
          onConfirm={onChange}
          onClose={() => setChoosing(false)}
        />
      )}
    </>
  );
}
