import { useEffect, useRef, useState } from 'react';

/** Files that are let go of over a part of the screen; whether some are held over it now. */
export function useDropped(place: HTMLElement | null, may: boolean, onFiles: (files: File[]) => void): boolean {
  const [over, setOver] = useState(false);
  const latest = useRef(onFiles);
  latest.current = onFiles;
  useEffect(() => {
    if (!place || !may) return undefined;
    const ended = new AbortController();
    const { signal } = ended;
    const hear = (name: 'dragover' | 'dragleave' | 'drop', then: (event: DragEvent) => void) =>
      place.addEventListener(name, then, { signal });
    hear('dragover', (event) => {
      if (!event.dataTransfer?.types.includes('Files')) return;
      event.preventDefault();
      event.dataTransfer.dropEffect = 'copy';
      setOver(true);
    });
    hear('dragleave', (event) => place.contains(event.relatedTarget as Node | null) || setOver(false));
    hear('drop', (event) => {
      setOver(false);
      const files = [...(event.dataTransfer?.files ?? [])];
      if (files.length === 0) return;
      event.preventDefault();
      latest.current(files);
    });
    return () => ended.abort();
  }, [place, may]);
  return over && may;
}
