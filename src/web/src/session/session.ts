import { createContext, useContext } from 'react';
import { getJson, sendJson, setAntiforgery, Unreachable } from './api';

export type Role = 'owner' | 'writer' | 'reader';

export interface Person {
  id: string;
  name: string;
  email: string;
  colour: string;
  /** Whether signing in asks for a code as well. */
  secondFactor: boolean;
}

export interface Space {
  id: string;
  name: string;
  personal: boolean;
  role: Role;
}

/** Who is signed in, and which spaces are open to them. */
export interface Session {
  person: Person;
  spaces: Space[];
}

interface SessionAnswer {
  antiforgery: string;
  serverTime: number;
  person?: Person;
  spaces?: Space[];
}

const key = 'quill.session';

/** Asks the server who is signed in; without a connection, the person last signed in on this device opens what it holds. */
export async function fetchSession(): Promise<Session | null> {
  try {
    return keep(await getJson<SessionAnswer>('/api/session'));
  } catch (problem) {
    const kept = localStorage.getItem(key);
    if (problem instanceof Unreachable && kept) return JSON.parse(kept) as Session;
    throw problem;
  }
}

export async function signIn(email: string, password: string, code = ''): Promise<Session | null> {
  return keep(await sendJson<SessionAnswer>('POST', '/api/session', { email, password, ...(code ? { code } : {}) }));
}

/** Asks for an account; a letter follows, whatever there is already. */
export async function register(name: string, email: string, password: string): Promise<void> {
  await sendJson('POST', '/api/people', { name, email, password });
}

/** Makes an account by an invitation. */
export async function join(invitation: string, name: string, email: string, password: string): Promise<Session | null> {
  return keep(await sendJson<SessionAnswer>('POST', '/api/people', { invitation, name, email, password }));
}

/** Finishes a registration by its letter. */
export async function confirmRegistration(letter: string): Promise<Session | null> {
  return keep(await sendJson<SessionAnswer>('POST', '/api/people/confirmations', { letter }));
}

/** Asks for a letter about a forgotten password. */
export async function askForLetter(email: string): Promise<void> {
  await sendJson('POST', '/api/people/forgotten', { email });
}

export async function signOut(): Promise<void> {
  await sendJson('DELETE', '/api/session');
  localStorage.removeItem(key);
}

function keep(answer: SessionAnswer): Session | null {
  setAntiforgery(answer.antiforgery);
  if (!answer.person) return null;
  const session = { person: answer.person, spaces: answer.spaces ?? [] };
  localStorage.setItem(key, JSON.stringify(session));
  return session;
}

export const SessionContext = createContext<Session | null>(null);

export function useSession(): Session {
  const session = useContext(SessionContext);
  if (!session) throw new Error('No one is signed in.');
  return session;
}
