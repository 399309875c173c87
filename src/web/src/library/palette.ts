/** Background classes of the palette's names, for bars and dots. */
export const fillOf: Record<string, string> = {
  spruce: 'bg-spruce',
  madder: 'bg-madder',
  sky: 'bg-sky',
  gold: 'bg-gold',
  plum: 'bg-plum',
  lichen: 'bg-lichen',
};

/** The same as colours for SVG. */
export const inkOf: Record<string, string> = {
  spruce: 'var(--color-spruce)',
  madder: 'var(--color-madder)',
  sky: 'var(--color-sky)',
  gold: '#a3731d',
  plum: 'var(--color-plum)',
  lichen: '#68753c',
};
