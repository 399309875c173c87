import { numberWords } from '../words/language';
/** An amount of bytes in words: `640 kB`, `1.2 MB`, `20 GB`. */
export function bytesWords(bytes: number): string {
  if (bytes < 1_000_000) return `${Math.ceil(bytes / 1000)} kB`;
  return bytes < 1_000_000_000
    ? `${numberWords(bytes / 1_000_000, 1)} MB`
    : `${numberWords(bytes / 1_000_000_000, 1)} GB`;
}
