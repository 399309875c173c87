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

export function NodeIcon({ name, size = 18 }: { name: string; size?: number }) {
  const Shown = nodeIcons[name] ?? MagnifyingGlassIcon;
  return <Shown size={size} weight="light" aria-hidden="true" />;
}
