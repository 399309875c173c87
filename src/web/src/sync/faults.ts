import { request } from '../server/api';

/** Of what was at fault so much goes along, bytes. */
const mostBytes = 32 * 1024;
const mostReports = 20;
const reported = new Set<string>();

/** Tells the server of a fault of this application, for whoever looks after it; each kind once while the application is open. Never throws. */
export function reportFault(what: string, problem: unknown, document = '', bytes?: Uint8Array): void {
  const words = problem instanceof Error ? `${problem.message}\n${problem.stack ?? ''}` : String(problem);
  const key = `${what} ${document} ${words.split('\n')[0]}`;
  if (reported.has(key) || reported.size >= mostReports) return;
  reported.add(key);
  const report = {
    what,
    words: words.slice(0, 4_000),
    document,
    build: __BUILD__,
    bytes: bytes ? base64(bytes.slice(0, mostBytes)) : '',
  };
  request('POST', '/api/faults', JSON.stringify(report), 'application/json').catch(() => {
    // It may be told again when it happens again.
    reported.delete(key);
  });
}

/** Bytes as text that every format can hold. */
export function base64(bytes: Uint8Array): string {
  const letters: string[] = [];
  for (let at = 0; at < bytes.length; at += 0x8000)
    letters.push(String.fromCharCode(...bytes.subarray(at, at + 0x8000)));
  return btoa(letters.join(''));
}

export function fromBase64(text: string): Uint8Array {
  return Uint8Array.from(atob(text), (letter) => letter.charCodeAt(0));
}
