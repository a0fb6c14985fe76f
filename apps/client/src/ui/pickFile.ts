/** Asks for a file; null when the person thinks better of it. Web only: other devices have no files to choose from. */
export function pickFile(accept: string, { camera = false } = {}): Promise<File | null> {
  if (typeof document === 'undefined') return Promise.resolve(null);
  return new Promise((resolve) => {
    const input = document.createElement('input');
    input.type = 'file';
    input.accept = accept;
    if (camera) input.setAttribute('capture', 'environment');
    input.style.display = 'none';
    input.dataset['testid'] = 'chosen-file';
    input.addEventListener('change', () => {
      resolve(input.files?.[0] ?? null);
      input.remove();
    });
    input.addEventListener('cancel', () => {
      resolve(null);
      input.remove();
    });
    document.body.append(input);
    input.click();
  });
}
