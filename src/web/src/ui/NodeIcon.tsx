import { t } from '@lingui/core/macro';
import {
  BellIcon,
  BookmarkSimpleIcon,
  BooksIcon,
  CalendarBlankIcon,
  CompassToolIcon,
  FlagIcon,
  FlaskIcon,
  GearIcon,
  GraduationCapIcon,
  HourglassIcon,
  type Icon,
  LeafIcon,
  MagnifyingGlassIcon,
  MusicNotesIcon,
  PencilLineIcon,
  PuzzlePieceIcon,
  WrenchIcon,
} from '@phosphor-icons/react';

/** The icons that folders and lenses can carry, by the names that are stored. */
export const nodeIcons: Record<string, Icon> = {
  glass: MagnifyingGlassIcon,
  pencil: PencilLineIcon,
  cap: GraduationCapIcon,
  hourglass: HourglassIcon,
  calendar: CalendarBlankIcon,
  flag: FlagIcon,
  bell: BellIcon,
  bookmark: BookmarkSimpleIcon,
  books: BooksIcon,
  gear: GearIcon,
  wrench: WrenchIcon,
  compass: CompassToolIcon,
  flask: FlaskIcon,
  leaf: LeafIcon,
  music: MusicNotesIcon,
  puzzle: PuzzlePieceIcon,
};

/** What the icons are called. */
export const iconWords: Record<string, string> = {
  glass: t`magnifying glass`,
  pencil: t`pencil`,
  cap: t`scholar’s cap`,
  hourglass: t`hourglass`,
  calendar: t`calendar`,
  flag: t`flag`,
  bell: t`bell`,
  bookmark: t`bookmark`,
  books: t`books`,
  gear: t`gear wheel`,
  wrench: t`wrench`,
  compass: t`compass`,
  flask: t`flask`,
  leaf: t`leaf`,
  music: t`notes of music`,
  puzzle: t`piece of a puzzle`,
};

export function NodeIcon({ name, size = 18 }: { name: string; size?: number }) {
  const Shown = nodeIcons[name] ?? MagnifyingGlassIcon;
  return <Shown size={size} weight="light" aria-hidden="true" />;
}
