import { sendJson } from '../server/api';

/** What a page of the web says of itself. */
export interface Preview {
  title: string;
  words: string;
  site: string;
  /** A picture of it, as base64. */
  picture: { type: string; bytes: string } | null;
}

/** Has the server fetch what an address says of itself. */
export function fetchPreview(address: string): Promise<Preview> {
  return sendJson<Preview>('POST', '/api/previews', { address });
}

export function blobOf({ type, bytes }: NonNullable<Preview['picture']>): Blob {
  return new Blob([Uint8Array.from(atob(bytes), (sign) => sign.charCodeAt(0))], { type });
}
