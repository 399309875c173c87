import { useEffect } from 'react';
import { useLetterKeys } from '../data/usePersonal';
import { openKeys, useKeysOpen } from '../ui/keysSheet';

/** “?” shows the sheet of keys, where single signs are keys. Whether it is shown. */
export function useKeysKey(): boolean {
  const letters = useLetterKeys();
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (event.key !== '?' || !letters || event.defaultPrevented || event.ctrlKey || event.metaKey) return;
      if ((event.target as Element).closest('input, textarea, select, [contenteditable], [role=dialog]')) return;
      event.preventDefault();
      openKeys(true);
    };
    addEventListener('keydown', press);
    return () => removeEventListener('keydown', press);
  }, [letters]);
  return useKeysOpen();
}
