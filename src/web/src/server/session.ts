import { t } from '@lingui/core/macro';
import { createContext, useContext } from 'react';

/** What whoever writes in a group may do to what is there already; owners may do everything. */
export type Touch = 'everything' | 'own' | 'add';

export type Role = 'owner' | 'writer' | 'reader';

/** What one is in a space. */
export const roleNames: Record<Role, string> = { owner: t`Owner`, writer: t`Writer`, reader: t`Reader` };

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
  /** Of a group; empty for none. */
  colour?: string;
  /** What writers may do to what others wrote. */
  touch?: Touch;
  /** Whether who only reads there is shown pages as they are, and not as they were. */
  isPastClosed?: boolean;
  /** One is not in it: something of it was shared. The role is that in one notebook then. */
  isGuest?: boolean;
}

/** Who is signed in, and which spaces are open to them. */
export interface Session {
  person: Person;
  spaces: Space[];
}

const key = 'quill.session';

/** A person's own library goes by the same name everywhere: in the language of whoever reads it. */
export const inOurWords = (session: Session): Session => ({
  ...session,
  spaces: session.spaces.map((space) => (space.personal ? { ...space, name: t`My notebooks` } : space)),
});

/** Who was signed in on this device last, and has not left it. */
export function keptSession(): Session | undefined {
  const kept = localStorage.getItem(key);
  return kept ? inOurWords(JSON.parse(kept) as Session) : undefined;
}

/** Keeps who is signed in, for when the server cannot be asked. */
export function keepSession(session: Session): void {
  localStorage.setItem(key, JSON.stringify(session));
}

export const SessionContext = createContext<Session | null>(null);

export function useSession(): Session {
  const session = useContext(SessionContext);
  if (!session) throw new Error(t`No one is signed in.`);
  return session;
}
