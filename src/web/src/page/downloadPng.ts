import { t } from '@lingui/core/macro';
import { making } from '../data/download';
import { fineness, finely } from '../model/fineness';
import { request } from '../server/api';
import type { Workspace } from '../sync/workspace';
import { saveBlob } from '../model/saveBlob';

/** As many dots as a browser draws a length of SVG with, an inch. */
const drawnDots = 96;
const mostPixels = 8_000;

/** Saves a page as a PNG, drawn by the browser from the same SVG that can be saved by itself. */
export function downloadPng(workspace: Workspace, space: string, page: string, title: string): Promise<void> {
  return making(workspace, t`The page as PNG`, async (signal) => {
    const path = finely(`/api/spaces/${space}/pages/${page}/export.svg`);
    const svg = await request('GET', path, undefined, undefined, signal);
    const address = URL.createObjectURL(await svg.blob());
    try {
      saveBlob(`${title || 'Page'}.png`, await drawn(address));
    } finally {
      URL.revokeObjectURL(address);
    }
  });
}

async function drawn(address: string): Promise<Blob> {
  const picture = new Image();
  picture.src = address;
  await picture.decode();
  const scale = Math.min(fineness() / drawnDots, mostPixels / Math.max(picture.naturalWidth, picture.naturalHeight));
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [Math.round(picture.naturalWidth * scale), Math.round(picture.naturalHeight * scale)];
  canvas.getContext('2d')!.drawImage(picture, 0, 0, canvas.width, canvas.height);
  const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/png'));
  if (!blob) throw new Error(t`This browser could not draw the page. Save it as SVG or PDF instead.`);
  return blob;
}
