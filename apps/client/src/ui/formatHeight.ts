import { currentManner } from './manner';

const MINUS = '\u2212';
const MM_PER_INCH = 25.4;
/** An inch has two decimals more than a millimetre of about the same fineness. */
const INCH_DIGITS = 2;

/** A number with the given decimals and the shop's decimal mark: "0.27", "−0,10". */
export const decimal = (value: number, digits: number) => marked(withMinus(value.toFixed(digits)));

/** A number without needless zeros, with at most the given decimals. */
export const shortDecimal = (value: number, digits: number) => marked(withMinus(String(Number(value.toFixed(digits)))));

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

/** A height about the mean in hundredths of a millimetre, signed: "+3", "−1", "0". Gauges show them so everywhere. */
export function signedHundredths(height: number): string {
  const hundredths = Math.round(height * 100);
  if (hundredths === 0) return '0';
  return hundredths > 0 ? `+${hundredths}` : `${MINUS}${-hundredths}`;
}

const withMinus = (text: string) => (/^-0(\.0*)?$/.test(text) ? text.slice(1) : text.replace('-', MINUS));
const marked = (text: string) => (currentManner().numbers === 'comma' ? text.replace('.', ',') : text);
