/** The heading of the screen, made ready to take the focus: from there a keyboard goes on where what it was at is gone. */
export function headingOf(screen: ParentNode | null): HTMLElement | null {
  const heading = screen?.querySelector('h1') ?? null;
  if (heading) heading.tabIndex = -1;
  return heading;
}

/** Gives the heading the focus; false where there is none. */
export function focusHeading(screen: ParentNode | null): boolean {
  const heading = headingOf(screen);
  heading?.focus({ preventScroll: true });
  return heading !== null;
}
