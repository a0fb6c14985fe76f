import type { Reader } from './figures';

const NUMBER = String.raw`\d{1,6}(?:[.,]\d{1,6})?`;
/** "5 to 30 mm", "0.25°", "100 °C", "70 × 37 mm": numbers before the unit that they share. */
const QUANTITY = new RegExp(
  String.raw`(${NUMBER})(?:( to | or | × )(${NUMBER}))? ?(mm\/s|mm|cm|µm|°C|°(?!\w)|%)(?![\w²³])`,
  'g',
);
const PER_INCH: Record<string, number> = { mm: 25.4, 'mm/s': 25.4, cm: 2.54, µm: 25_400 };
const INCHES: Record<string, string> = { mm: 'in', 'mm/s': 'in/s', cm: 'in', µm: 'in' };
/** Inches of what people wrote in millimetres: as fine as the hand needs, never by more than half of a hundredth off. */
const SIGNIFICANT = 3;

/**
 * Quantities in what people wrote (jobs, cautions, reasons), as the reader reads them: in the reader's units and with the
 * reader's decimal mark. What is no quantity stays word for word.
 * @example quantitiesIn('Fold 40 mm back, below 43 °C.', inches) // "Fold 1.57 in back, below 109 °F."
 */
export function quantitiesIn(text: string, { units, numbers }: Reader): string {
  const marked = (figure: string) => (numbers === 'comma' ? figure.replace('.', ',') : figure);
  return text.replace(
    QUANTITY,
    (whole: string, first: string, between: string | undefined, second: string | undefined, unit: string) => {
      const gap = whole.endsWith(` ${unit}`) ? ' ' : '';
      const said = (figure: string) => {
        const value = Number(figure.replace(',', '.'));
        if (units === 'mm' || unit === '°' || unit === '%') return marked(figure.replace(',', '.'));
        if (unit === '°C') return String(Math.round((value * 9) / 5 + 32));
        return marked(String(Number((value / PER_INCH[unit]!).toPrecision(SIGNIFICANT))));
      };
      const told = units === 'mm' ? unit : unit === '°C' ? '°F' : (INCHES[unit] ?? unit);
      return `${said(first)}${between === undefined ? '' : `${between}${said(second!)}`}${gap}${told}`;
    },
  );
}

/** A document with the quantities of all its texts as the reader reads them; ids and numbers stay. */
export function documentIn<T>(document: T, reader: Reader): T {
  if (typeof document === 'string') return quantitiesIn(document, reader) as T;
  if (Array.isArray(document)) return document.map((part: unknown) => documentIn(part, reader)) as T;
  if (typeof document !== 'object' || document === null) return document;
  return Object.fromEntries(
    Object.entries(document).map(([key, part]) => [key, documentIn<unknown>(part, reader)]),
  ) as T;
}
