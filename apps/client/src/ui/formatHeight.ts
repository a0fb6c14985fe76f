const MINUS = '\u2212';

/** A length for people: "0.27", always with a point and the given decimals. */
export const millimetres = (length: number, digits = 2) => withMinus(length.toFixed(digits));

/** A height about the mean in hundredths of a millimetre, signed: "+3", "−1", "0". */
export function signedHundredths(height: number): string {
  const hundredths = Math.round(height * 100);
  if (hundredths === 0) return '0';
  return hundredths > 0 ? `+${hundredths}` : `${MINUS}${-hundredths}`;
}

const withMinus = (text: string) => (Number(text) === 0 ? text.replace('-', '') : text.replace('-', MINUS));
