/** So many pictures of pages stay on the device. */
const mostPictures = 2_000;

/** Takes the oldest pictures off the device; the service worker puts new ones there under the same name. */
export async function trimPictures(): Promise<void> {
  const pictures = await caches.open('thumbnails');
  const requests = await pictures.keys();
  for (const request of requests.slice(0, Math.max(0, requests.length - mostPictures))) await pictures.delete(request);
}
