/** Takes pictures off the device that the service worker keeps, by their paths. */
export async function dropPictures(which: (path: string) => boolean): Promise<void> {
  const pictures = await caches.open('thumbnails');
  for (const request of await pictures.keys()) if (which(new URL(request.url).pathname)) await pictures.delete(request);
}
