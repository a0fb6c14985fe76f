import sharp from 'sharp';

/** What a drawn plate shows. */
export type PlateLook = 'even' | 'faded' | 'sanded' | 'light' | 'lapped';

const ground: Record<PlateLook, [string, string]> = {
  even: ['#5c4a1f', '#7a6430'],
  faded: ['#6b5d3a', '#8f825c'],
  sanded: ['#54452a', '#6f6040'],
  light: ['#3a4247', '#566067'],
  lapped: ['#6d767b', '#8b9499'],
};

const lines = (count: number, draw: (i: number) => string) => Array.from({ length: count }, (_, i) => draw(i)).join('');

const marks: Record<PlateLook, string> = {
  even: '',
  faded: `<ellipse cx="610" cy="450" rx="300" ry="210" fill="url(#pale)"/>${lines(7, (i) => `<rect x="${330 + i * 80}" y="${300 + (i % 3) * 90}" width="70" height="46" fill="#fff" opacity="0.06"/>`)}`,
  sanded: lines(60, (i) => `<path d="M120 ${130 + i * 11} L1080 ${126 + i * 11}" stroke="#fff" opacity="0.05"/>`),
  light: `<rect x="100" y="430" width="1000" height="46" fill="#171b1d"/><path d="M300 476 Q600 492 900 476 Z" fill="#fff8d8"/>`,
  lapped: lines(40, (i) => `<circle cx="600" cy="450" r="${10 + i * 9}" fill="none" stroke="#fff" opacity="0.06"/>`),
};

/** A drawn stand-in for a photo of a plate, for the demo alone. PNG. */
export function drawnPlate(look: PlateLook): Promise<Buffer> {
  const [dark, bright] = ground[look];
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="1200" height="900">
  <defs>
    <linearGradient id="sheen" x1="0" y1="0" x2="1" y2="1"><stop offset="0" stop-color="${dark}"/><stop offset="0.55" stop-color="${bright}"/><stop offset="1" stop-color="${dark}"/></linearGradient>
    <radialGradient id="pale"><stop offset="0" stop-color="#fff" stop-opacity="0.38"/><stop offset="1" stop-color="#fff" stop-opacity="0"/></radialGradient>
  </defs>
  <rect width="1200" height="900" fill="#23292c"/>
  <rect x="80" y="80" width="1040" height="740" rx="18" fill="url(#sheen)"/>
  <rect x="560" y="808" width="80" height="24" fill="#23292c"/>${marks[look]}
</svg>`;
  return sharp(Buffer.from(svg)).png().toBuffer();
}
