import { t } from '@lingui/core/macro';
import { FlagBannerIcon } from '@phosphor-icons/react';
import { type ReactNode, useState } from 'react';
import type { Moment, Notebook } from '../data/useNotebook';
import type { MenuEntry } from '../ui/Menu';
import { NameDialog } from '../ui/naming';
import type { Chart } from './chart';

/** The named moments that stand on a bar: none is before its beginning. */
export const momentsOn = ({ sittings }: Chart, moments: Moment[]): Moment[] =>
  moments.filter(({ at }) => sittings.length > 0 && at >= sittings[0]![0]);

/** Entries of a menu that lead to named moments. */
export const goTo = (moments: Moment[], go: (moment: Moment) => void): MenuEntry[] =>
  moments.map((moment) => ({
    label: t`Go to “${moment.name}”`,
    testId: 'history-go-moment',
    icon: <FlagBannerIcon size={20} weight="light" />,
    onChoose: () => go(moment),
  }));

/** Naming the moment at which a needle stands: the entry of the menu that asks for it, and what asks. */
export function useNaming(notebook: Notebook, time: number): { entry: MenuEntry; dialog: ReactNode } {
  /** The moment that is named; undefined while none is. */
  const [at, setAt] = useState<number>();
  return {
    entry: {
      label: t`Name this moment`,
      testId: 'history-name',
      icon: <FlagBannerIcon size={20} weight="light" />,
      onChoose: () => setAt(time),
    },
    dialog: at !== undefined && (
      <NameDialog
        title={t`Name this moment`}
        label={t`What to call it, as “before the exam”`}
        confirm={t`Keep the name`}
        onConfirm={(name) => notebook.nameMoment(at, name)}
        onClose={() => setAt(undefined)}
      />
    ),
  };
}
