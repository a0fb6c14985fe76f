/** A number as it is typed, with a comma or a point; NaN when it is none, or nothing. For lengths there is `readLength`. */
export function numberIn(text: string): number {
  const plain = text.trim().replace(',', '.').replace('\u2212', '-');
  return plain === '' ? NaN : Number(plain);
}
