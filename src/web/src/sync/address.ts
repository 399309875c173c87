import type { DocumentKind } from '../core/runtime';

/** How a document is called on this device and on the live connection: by its space, kind and id together, since an id says nothing outside its space. */
export function addressOf(space: string, kind: DocumentKind, id: string): string {
  return `${space}/${kind}/${id}`;
}

/** Where a document is, and what it is. */
export function placeOf(address: string): [space: string, kind: DocumentKind] {
  const [space, kind] = address.split('/');
  return [space!, kind as DocumentKind];
}

/** The id alone, as it is kept of documents from before addresses. */
export function idOf(address: string): string {
  return address.slice(address.lastIndexOf('/') + 1);
}
