/** Offers something as a file to be saved. */
export function saveBlob(name: string, blob: Blob): void {
  const address = URL.createObjectURL(blob);
  Object.assign(document.createElement('a'), { href: address, download: name }).click();
  setTimeout(() => URL.revokeObjectURL(address), 10_000);
}
