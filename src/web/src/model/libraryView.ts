import { t } from '@lingui/core/macro';
/** How a folder or list is looked at; each remembers its own. */
export interface View {
  density: 'rows' | 'covers' | 'list';
  sort: 'written' | 'name' | 'created' | 'kind' | 'size' | 'own';
  reversed: boolean;
  group: 'none' | 'date' | 'tag' | 'person';
  /** Width of thumbnails or covers, in steps of a fifth of the usual. */
  size: number;
  /** Whether what lies in inner folders is shown too. */
  deep: boolean;
}

export const usualView: View = {
  density: 'rows',
  sort: 'written',
  reversed: false,
  group: 'none',
  size: 5,
  deep: true,
};

export const sortWords: Record<View['sort'], string> = {
  written: t`Last written`,
  name: t`Name`,
  created: t`Created`,
  kind: t`Kind`,
  size: t`Size`,
  own: t`Own order`,
};
export const groupWords: Record<View['group'], string> = {
  none: t`Not grouped`,
  date: t`By date`,
  tag: t`By tag`,
  person: t`By person`,
};

export function readView(text: string | undefined): View {
  if (!text) return usualView;
  try {
    return { ...usualView, ...(JSON.parse(text) as Partial<View>) };
  } catch {
    return usualView;
  }
}

export function writeView(view: View): string {
  return JSON.stringify(view);
}

/** The id under which a list without one of its own remembers its view. */
export function viewTarget(space: string, place: string): string {
  if (/^[0-9a-f-]{36}$/.test(place)) return place === '00000000-0000-0000-0000-000000000000' ? space : place;
  const name = place.replace(/^lens-/, '');
  if (/^[0-9a-f-]{36}$/.test(name)) return name;
  return `00000000-0000-8000-8000-${[...name]
    .reduce((sum, letter) => (sum * 31 + letter.charCodeAt(0)) % 0xffffffffffff, 7)
    .toString(16)
    .padStart(12, '0')}`;
}
