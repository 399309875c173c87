/** After how long without the server this device asks for the password before it opens what it holds. */
export type LockAfter = 'never' | 'day' | 'week';

interface Lock {
  after: LockAfter;
  salt: string;
  /** Derived from the password; from it the password cannot be had back. */
  proof: string;
}

const key = 'quill.offline-lock';
const metKey = 'quill.met';
const day = 86_400_000;
const lengths: Record<LockAfter, number> = { never: Infinity, day, week: 7 * day };
/** PBKDF2 with SHA-256, rounds as OWASP advises (Password Storage Cheat Sheet, 2023). */
const rounds = 600_000;

/** The server knew the person just now. */
export function metServer(): void {
  localStorage.setItem(metKey, String(Date.now()));
}

export function lockAfter(): LockAfter {
  return kept()?.after ?? 'never';
}

/** Asks for the password from now on after so long; it must have been checked before. */
export async function setLock(after: LockAfter, password: string): Promise<void> {
  if (after === 'never') return localStorage.removeItem(key);
  const salt = crypto.getRandomValues(new Uint8Array(16));
  const lock: Lock = { after, salt: hex(salt), proof: await proofOf(password, salt) };
  localStorage.setItem(key, JSON.stringify(lock));
}

/** Whether what the device holds may only be opened with the password now. A clock set back does not open it. */
export function isLocked(now = Date.now()): boolean {
  const lock = kept();
  const met = Number(localStorage.getItem(metKey) ?? 0);
  return lock !== undefined && (now < met || now - met > lengths[lock.after]);
}

/** Opens the lock for this time; false when it is not the password. */
export async function unlock(password: string): Promise<boolean> {
  const lock = kept();
  if (!lock) return true;
  return (await proofOf(password, bytesOf(lock.salt))) === lock.proof;
}

function kept(): Lock | undefined {
  const text = localStorage.getItem(key);
  return text ? (JSON.parse(text) as Lock) : undefined;
}

async function proofOf(password: string, salt: Uint8Array<ArrayBuffer>): Promise<string> {
  const given = await crypto.subtle.importKey('raw', new TextEncoder().encode(password), 'PBKDF2', false, [
    'deriveBits',
  ]);
  const bits = await crypto.subtle.deriveBits(
    { name: 'PBKDF2', hash: 'SHA-256', salt, iterations: rounds },
    given,
    256,
  );
  return hex(new Uint8Array(bits));
}

const hex = (bytes: Uint8Array): string => [...bytes].map((byte) => byte.toString(16).padStart(2, '0')).join('');

const bytesOf = (text: string): Uint8Array<ArrayBuffer> =>
  Uint8Array.from(text.match(/../g) ?? [], (pair) => Number.parseInt(pair, 16));
