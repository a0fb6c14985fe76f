/** A text file's words: UTF-8 where it is that, else as older table programs of Western Europe write it. */
export function decodeText(file: Uint8Array): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(file);
  } catch {
    return new TextDecoder('windows-1252').decode(file);
  }
}
