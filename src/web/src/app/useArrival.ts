import { focusHeading } from '../ui/focusHeading';
import { type RefObject, useEffect, useRef } from 'react';
import { useLocation } from 'react-router';

const product = 'Calm Quill';

/** What one is at: turning pages or going from folder to folder is no arrival. */
function screenOf(pathname: string): string {
  const [, kind = '', , within = ''] = pathname.split('/');
  return ['page', 'pages', 'web'].includes(kind) ? `${kind}/${within}` : kind;
}

/**
 * The window is titled after what stands in the main part. When another screen comes, the focus goes to its heading, so that a keyboard goes on from there and a
 * screen reader says where one is; a field that took the focus itself keeps it.
 */
export function useArrival(main: RefObject<HTMLElement | null>): void {
  const { pathname } = useLocation();
  const screen = screenOf(pathname);
  const before = useRef(screen);

  useEffect(() => {
    const entitle = () => {
      const heading = main.current?.querySelector('h1')?.textContent?.trim();
      const title = heading ? `${heading} – ${product}` : product;
      if (document.title !== title) document.title = title;
    };
    const observer = new MutationObserver(entitle);
    observer.observe(main.current!, { childList: true, subtree: true, characterData: true });
    entitle();
    return () => observer.disconnect();
  }, [main]);

  useEffect(() => {
    if (before.current === screen) return;
    before.current = screen;
    const arrive = () => {
      if (main.current!.contains(document.activeElement) || focusHeading(main.current!)) observer.disconnect();
    };
    const observer = new MutationObserver(arrive);
    observer.observe(main.current!, { childList: true, subtree: true });
    arrive();
    return () => observer.disconnect();
  }, [main, screen]);
}
