/** The tag in what was scanned or typed: a page's address, or the tag itself; null when there is none. */
export function tagIn(text: string): string | null {
  const trimmed = text.trim();
  const [, inAddress] = /\/t\/([A-Za-z]{1,4}-\d{1,6})\/?(?:[?#].*)?$/.exec(trimmed) ?? [];
  const tag = inAddress ?? (/^[A-Za-z]{1,4}[- ]?\d{1,6}$/.test(trimmed) ? trimmed : null);
  if (tag === null) return null;
  const [, letters, digits] = /^([A-Za-z]+)[- ]?(\d+)$/.exec(tag)!;
  return `${letters!.toUpperCase()}-${digits}`;
}
