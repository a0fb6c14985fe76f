/** How numbers, lengths and times are read. */
export interface Reader {
  units: 'mm' | 'in';
  /** IANA name of a time zone. */
  zone: string;
  numbers: 'point' | 'comma';
  /** How turns of a screw are said; not said: in parts. */
  turns?: 'parts' | 'degrees';
}

const MINUS = '\u2212';
const MM_PER_INCH = 25.4;
/** An inch has two decimals more than a millimetre of about the same fineness. */
const INCH_DIGITS = 2;

const withMinus = (text: string) => (/^-0(\.0*)?$/.test(text) ? text.slice(1) : text.replace('-', MINUS));

/** Figures as a reader reads them. Lengths come in mm. */
export function figuresFor({ units, numbers }: Reader) {
  const marked = (text: string) => (numbers === 'comma' ? text.replace('.', ',') : text);
  /** With the given decimals: "0.27", "−0,10". */
  const decimal = (value: number, digits: number) => marked(withMinus(value.toFixed(digits)));
  /** Without needless zeros, with at most the given decimals. */
  const short = (value: number, digits: number) => marked(withMinus(String(Number(value.toFixed(digits)))));
  const inches = units === 'in';
  return {
    decimal,
    short,
    /** "0.27 mm", "0.0106 in" */
    length: (mm: number, digits = 2) =>
      inches ? `${decimal(mm / MM_PER_INCH, digits + INCH_DIGITS)} in` : `${decimal(mm, digits)} mm`,
    /** Without needless zeros: "235 mm", "9.252 in". */
    size: (mm: number, digits = 2) =>
      inches ? `${short(mm / MM_PER_INCH, digits + INCH_DIGITS)} in` : `${short(mm, digits)} mm`,
    /** A difference of temperatures in K: "2 °C", "3.6 °F". */
    difference: (kelvin: number) => (inches ? `${short((kelvin * 9) / 5, 1)} °F` : `${short(kelvin, 1)} °C`),
    /** A temperature in °C: "100 °C", "212 °F". */
    temperature: (celsius: number) => (inches ? `${Math.round((celsius * 9) / 5 + 32)} °F` : `${short(celsius, 1)} °C`),
  };
}

export type Figures = ReturnType<typeof figuresFor>;

const FORMS = new Intl.PluralRules('en');

/** "1 day", "3 days" */
export const counted = (count: number, one: string, many: string): string =>
  `${count} ${FORMS.select(count) === 'one' ? one : many}`;
