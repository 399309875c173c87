import { t } from '@lingui/core/macro';
import { getJson, sendJson, setAntiforgery, setOpenFor, Unreachable } from '../server/api';
import { isLocked, metServer } from '../server/offlineLock';
import { keepSession, keptSession, type Person, type Session, type Space, inOurWords } from '../server/session';
import { clearOthers, leaveDevice } from './leaving';

const leavingKey = 'quill.leaving';

interface SessionAnswer {
  antiforgery: string;
  serverTime: number;
  person?: Person;
  spaces?: Space[];
}

/** The device holds something, and asks for the password before it shows it without the server. */
export class LockedDevice extends Error {
  constructor(readonly session: Session) {
    super(t`This device has not met the server for long. Give your password to open what it holds.`);
  }
}

/** Asks the server who is signed in; without a connection, the person last signed in on this device opens what it holds. */
export async function fetchSession(): Promise<Session | null> {
  try {
    if (localStorage.getItem(leavingKey)) await finishLeaving();
    return await entered(await getJson<SessionAnswer>('/api/session'));
  } catch (problem) {
    const kept = keptSession();
    if (!(problem instanceof Unreachable) || localStorage.getItem(leavingKey) || !kept) throw problem;
    if (isLocked()) throw new LockedDevice(kept);
    setOpenFor(kept.person.id);
    return kept;
  }
}

/** Takes over what the server says. Once it says that a sign-in was ended, nothing of its person is shown, or stays but for what was not sent. */
async function entered(answer: SessionAnswer): Promise<Session | null> {
  const before = keptSession();
  if (before && before.person.id !== answer.person?.id) await leaveDevice(before.person.id, false);
  if (answer.person) await clearOthers(answer.person.id);
  return keep(answer);
}

/** A sign-out that the server was not told of, for want of a connection, is made up for. */
async function finishLeaving(): Promise<void> {
  const { antiforgery } = await getJson<SessionAnswer>('/api/session');
  setAntiforgery(antiforgery);
  await sendJson('DELETE', '/api/session');
  localStorage.removeItem(leavingKey);
}

/** @param keep An account that was deleted is had back. */
export async function signIn(email: string, password: string, code = '', keep = false): Promise<Session | null> {
  return entered(
    await sendJson<SessionAnswer>('POST', '/api/session', {
      email,
      password,
      ...(code && { code }),
      ...(keep && { keep }),
    }),
  );
}

/** Deletes the account, and takes what is here of the person off the device. */
export async function deleteAccount(person: string, password: string): Promise<void> {
  await sendJson('POST', '/api/people/me/leaving', { password });
  await leaveDevice(person, false);
}

/** Asks for an account; a letter follows, whatever there is already. */
export async function register(name: string, email: string, password: string): Promise<void> {
  await sendJson('POST', '/api/people', { name, email, password });
}

/** Makes an account by an invitation. */
export async function join(invitation: string, name: string, email: string, password: string): Promise<Session | null> {
  return entered(await sendJson<SessionAnswer>('POST', '/api/people', { invitation, name, email, password }));
}

/** Makes an account by an invitation into a group, and goes in. */
export async function joinGroup(group: string, name: string, email: string, password: string): Promise<Session | null> {
  return entered(await sendJson<SessionAnswer>('POST', '/api/people', { group, name, email, password }));
}

/** Makes an account by a link to something shared, and takes it. */
export async function joinShare(
  share: string,
  passphrase: string,
  name: string,
  email: string,
  password: string,
): Promise<Session | null> {
  return entered(await sendJson<SessionAnswer>('POST', '/api/people', { share, passphrase, name, email, password }));
}

/** Finishes a registration by its letter. */
export async function confirmRegistration(letter: string): Promise<Session | null> {
  return entered(await sendJson<SessionAnswer>('POST', '/api/people/confirmations', { letter }));
}

/** Asks for a letter about a forgotten password. */
export async function askForLetter(email: string): Promise<void> {
  await sendJson('POST', '/api/people/forgotten', { email });
}

/**
 * Signs out, and takes what is here of the person off the device; without a connection the server is told as soon as there is one.
 * @param withUnsent Whether what was not sent goes too; else it stays for when they sign in here again.
 */
export async function signOut(person: string, withUnsent: boolean): Promise<void> {
  let isTold = true;
  try {
    await sendJson('DELETE', '/api/session');
  } catch (problem) {
    if (!(problem instanceof Unreachable)) throw problem;
    isTold = false;
  }
  // First, so that the person has left also when this is broken off.
  if (!isTold) localStorage.setItem(leavingKey, '1');
  await leaveDevice(person, withUnsent);
}

function keep(answer: SessionAnswer): Session | null {
  setAntiforgery(answer.antiforgery);
  setOpenFor(answer.person?.id ?? '');
  if (!answer.person) return null;
  metServer();
  const session = inOurWords({ person: answer.person, spaces: answer.spaces ?? [] });
  keepSession(session);
  return session;
}
