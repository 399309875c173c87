import type { Area } from '../model/drawing';
import { Refused, sendJson } from '../server/api';

/** The page that is shown to the room; without a picture while the leader shows none. */
export interface RoomSheetAnswer {
  page: string;
  svg?: string;
  curtains?: { id: string; area: Area; note: string }[];
}

/** A picture of a page and where it lies on it, 0.01 mm. */
export interface SheetPicture {
  page: string;
  address: string;
  area: Area;
  curtains: NonNullable<RoomSheetAnswer['curtains']>;
}

export const fetchSheet = (code: string): Promise<RoomSheetAnswer> =>
  sendJson<RoomSheetAnswer>('POST', '/api/room', { code });

/** Whether the lectern is not open any more, rather than that there is no connection. */
export const isOver = (problem: unknown): boolean => problem instanceof Refused && problem.code === 'no-lectern';

/** The picture, ready to be shown: it takes the place of the one before in one frame. */
export async function pictureOf(answer: RoomSheetAnswer): Promise<SheetPicture | undefined> {
  if (!answer.svg) return undefined;
  const [left, top, width, height] = (/viewBox="([^"]*)"/.exec(answer.svg)?.[1] ?? '').split(' ').map(Number) as [
    number,
    number,
    number,
    number,
  ];
  const address = URL.createObjectURL(new Blob([answer.svg], { type: 'image/svg+xml' }));
  const image = new Image();
  image.src = address;
  await image.decode().catch(() => {});
  return { page: answer.page, address, area: [left, top, left + width, top + height], curtains: answer.curtains ?? [] };
}
