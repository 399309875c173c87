import { t } from '@lingui/core/macro';
import { useState } from 'react';
import { finenesses, fineness, setFineness } from '../model/fineness';
import { Segments } from '../ui/Segments';

/** How finely pictures are put into files. */
export function FilesSettings() {
  const [chosen, setChosen] = useState(fineness);
  const words = { 150: t`150, small files`, 300: t`300, for paper`, 600: t`600, for fine paper` };
  return (
    <Segments<string>
      label={t`Dots an inch`}
      options={finenesses.map((dots) => ({ value: String(dots), words: words[dots], testId: `dots-${dots}` }))}
      value={String(chosen)}
      onValue={(value) => {
        const dots = finenesses.find((one) => String(one) === value)!;
        setFineness(dots);
        setChosen(dots);
      }}
    />
  );
}
