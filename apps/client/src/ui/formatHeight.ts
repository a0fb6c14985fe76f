import { currentManner } from './manner';

const MINUS = '\u2212';
const MM_PER_INCH = 25.4;
/** An inch has two decimals more than a millimetre of about the same fineness. */
const INCH_DIGITS = 2;

/** A number with the given decimals and the shop's decimal mark: "0.27", "−0,10". */
export const decimal = (value: number, digits: number) => decimalMark(withMinus(value.toFixed(digits)));

/** A number without needless zeros, with at most the given decimals. */
export const shortDecimal = (value: number, digits: number) =>
  decimalMark(withMinus(String(Number(value.toFixed(digits)))));

/** A length in mm in the shop's unit, without it: for tables whose head names it. */
export const lengthFigure = (mm: number, digits = 2) =>
  currentManner().units === 'in' ? decimal(mm / MM_PER_INCH, digits + INCH_DIGITS) : decimal(mm, digits);

/** "mm" or "in" */
export const lengthUnit = () => currentManner().units;

/** A length in mm for people, with its unit: "0.27 mm", "0.0106 in". */
export const length = (mm: number, digits = 2) => `${lengthFigure(mm, digits)} ${lengthUnit()}`;

/** A size in mm without needless zeros: "235 mm", "9.252 in". */
export const size = (mm: number, digits = 2) => `${sizeFigure(mm, digits)} ${lengthUnit()}`;

/** "235 × 235 mm" */
export const area = (width: number, depth: number) =>
  `${sizeFigure(width, 1)} × ${sizeFigure(depth, 1)} ${lengthUnit()}`;

/** A size without its unit: "235", "9.252". */
export const sizeFigure = (mm: number, digits: number) =>
  currentManner().units === 'in' ? shortDecimal(mm / MM_PER_INCH, digits + INCH_DIGITS) : shortDecimal(mm, digits);

/** A volume in mm³: "0.45 cm³", "0.0275 in³". */
export const volume = (mm3: number) =>
  currentManner().units === 'in'
    ? `${shortDecimal(mm3 / MM_PER_INCH ** 3, 4)} in³`
    : `${shortDecimal(mm3 / 1000, 2)} cm³`;

/** A length with its sign, "+" higher: "−1.161 mm". */
export const signedLength = (mm: number, digits = 3) => `${mm > 0 ? '+' : ''}${length(mm, digits)}`;

/** "°C" or "°F" */
export const temperatureUnit = () => (currentManner().units === 'in' ? '°F' : '°C');

/** A temperature in °C as a number in the shop's unit, for charts. */
export const temperatureFigure = (celsius: number) =>
  currentManner().units === 'in' ? (celsius * 9) / 5 + 32 : celsius;

/** A temperature in °C in the shop's unit: "100 °C", "212 °F". */
export const temperature = (celsius: number) =>
  currentManner().units === 'in' ? `${Math.round(temperatureFigure(celsius))} °F` : `${shortDecimal(celsius, 1)} °C`;

/** A difference of temperatures in °C in the shop's unit: "2 °C", "3.6 °F"; nothing is added to it. */
export const temperatureDifference = (celsius: number) =>
  currentManner().units === 'in' ? `${shortDecimal((celsius * 9) / 5, 1)} °F` : `${shortDecimal(celsius, 1)} °C`;

/** What heights on a map are counted in: 0.01 mm, or 0.0001 in, as dial gauges do. */
const finest = () => (currentManner().units === 'in' ? MM_PER_INCH / 10_000 : 0.01);

/** "hundredths of a mm", "ten-thousandths of an inch": what `signedFine` counts. */
export const fineUnit = () => (currentManner().units === 'in' ? 'ten-thousandths of an inch' : 'hundredths of a mm');

/** A height about the mean in mm, counted in the finest that gauges show, signed: "+3", "−1", "0". */
export function signedFine(height: number): string {
  const counted = Math.round(height / finest());
  if (counted === 0) return '0';
  return counted > 0 ? `+${counted}` : `${MINUS}${-counted}`;
}

/** The first letter large: for what begins a sentence. */
export const upperFirst = (text: string) => `${text.charAt(0).toUpperCase()}${text.slice(1)}`;

const withMinus = (text: string) => (/^-0(\.0*)?$/.test(text) ? text.slice(1) : text.replace('-', MINUS));
/** The shop's decimal mark for the point of a number. */
export const decimalMark = (text: string) => (currentManner().numbers === 'comma' ? text.replace('.', ',') : text);
