/** Hands a file to the person. Web only: elsewhere there is no folder to save it in. */
export function saveFile(name: string, content: string | Uint8Array | Blob, type: string): void {
  if (typeof document === 'undefined') return;
  const blob = content instanceof Blob ? content : new Blob([content as BlobPart], { type });
  const link = document.createElement('a');
  link.href = URL.createObjectURL(blob);
  link.download = name;
  link.click();
  // The browser reads it after the click has returned.
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}
