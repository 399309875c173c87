import { t } from '@lingui/core/macro';
import { FlagBannerIcon } from '@phosphor-icons/react';
import type { Moment } from '../data/useNotebook';
import type { MenuEntry } from '../ui/Menu';
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
