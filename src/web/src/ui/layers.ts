/** What lies over what, beside the screen's own content: a dialogue, the list of a menu, also of one in a dialogue, and what was just done. */
export const layers = { dialog: 'z-100', menu: 'z-110', said: 'z-120' } as const;
