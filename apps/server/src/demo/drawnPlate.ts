import seedrandom from 'seedrandom';
import sharp from 'sharp';

/** What a drawn stand-in shows: how worn, lifted or hazy from 0 to 1; the gap under a straightedge in mm. */
export type PlateLook =
  | { kind: 'sheet'; worn: number; sanded?: boolean }
  | { kind: 'line'; gap: number }
  | { kind: 'ridges' }
  | { kind: 'lifted'; edge: 'front' | 'right'; amount: number }
  | { kind: 'film'; haze: number };

const WIDTH = 1200;
const HEIGHT = 900;
const range = (count: number, draw: (i: number) => string) => Array.from({ length: count }, (_, i) => draw(i)).join('');

/** A drawn stand-in for a photo, for the demo alone: a bench, and on it what the card of an inspection says. PNG. */
export function drawnPlate(look: PlateLook, seed: string): Promise<Buffer> {
  const random = seedrandom(seed);
  const tilt = (random() - 0.5) * 5;
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${WIDTH}" height="${HEIGHT}">
  <defs>
    <filter id="grain" x="0" y="0" width="1" height="1"><feTurbulence type="fractalNoise" baseFrequency="0.9" numOctaves="3" seed="${Math.floor(random() * 1000)}"/><feColorMatrix values="0 0 0 0 1  0 0 0 0 0.9  0 0 0 0 0.7  0.9 0 0 0 -0.42"/><feComposite in2="SourceGraphic" operator="in"/></filter>
    <filter id="wood" x="0" y="0" width="1" height="1"><feTurbulence type="fractalNoise" baseFrequency="0.004 0.09" numOctaves="4" seed="${Math.floor(random() * 1000)}"/><feColorMatrix values="0 0 0 0 0.1  0 0 0 0 0.07  0 0 0 0 0.04  0.9 0 0 0 -0.25"/></filter>
    <filter id="soft"><feGaussianBlur stdDeviation="9"/></filter>
    <linearGradient id="day" x1="0" y1="0" x2="1" y2="1"><stop offset="0" stop-color="#fff" stop-opacity="0.22"/><stop offset="0.6" stop-color="#fff" stop-opacity="0"/><stop offset="1" stop-color="#000" stop-opacity="0.25"/></linearGradient>
    <radialGradient id="pale"><stop offset="0" stop-color="#fffbe8" stop-opacity="0.75"/><stop offset="0.7" stop-color="#fffbe8" stop-opacity="0.4"/><stop offset="1" stop-color="#fffbe8" stop-opacity="0"/></radialGradient>
  </defs>
  <rect width="${WIDTH}" height="${HEIGHT}" fill="#8a7a63"/><rect width="${WIDTH}" height="${HEIGHT}" filter="url(#wood)"/>
  <g transform="rotate(${tilt.toFixed(2)} 600 450)">${drawn(look, random)}</g>
  <rect width="${WIDTH}" height="${HEIGHT}" fill="url(#day)"/>
</svg>`;
  return sharp(Buffer.from(svg)).png().toBuffer();
}

function drawn(look: PlateLook, random: () => number): string {
  switch (look.kind) {
    case 'sheet':
      return sheet(look.worn, look.sanded ?? false, random);
    case 'line':
      return lightUnderStraightedge(look.gap, random);
    case 'ridges':
      return ridges();
    case 'lifted':
      return liftedEdge(look.edge, look.amount);
    case 'film':
      return film(look.haze, random);
  }
}

/** A spring sheet with its two ears in front; pale where brackets wore the coat, stroked where it was sanded. */
function sheet(worn: number, sanded: boolean, random: () => number): string {
  const outline = 'M150 110 H1050 V760 H700 V800 H500 V760 H150 Z';
  const prints = range(9, (i) => {
    const x = 250 + (i % 3) * 240 + random() * 60;
    const y = 200 + Math.floor(i / 3) * 170 + random() * 40;
    const w = 120 + random() * 70;
    return `<path d="M${x} ${y} h${w} v34 h${-(w - 34)} v74 h-34 Z" fill="#fff6d8" opacity="${(worn * (0.25 + random() * 0.35)).toFixed(2)}"/>`;
  });
  const scratches = range(Math.round(worn * 14), () => {
    const [x, y] = [220 + random() * 700, 180 + random() * 480];
    return `<path d="M${x} ${y} l${60 + random() * 90} ${(random() - 0.5) * 60}" stroke="#fff" stroke-width="1.6" opacity="0.4"/>`;
  });
  const strokes = sanded
    ? range(
        90,
        (i) =>
          `<path d="M160 ${118 + i * 7} q440 ${(random() - 0.5) * 9} 880 ${(random() - 0.5) * 5}" stroke="#fff" fill="none" stroke-width="1.4" opacity="${(0.08 + random() * 0.14).toFixed(2)}"/>`,
      )
    : '';
  return `<path d="${outline}" transform="translate(10 14)" fill="#000" opacity="0.4" filter="url(#soft)"/>
    <path d="${outline}" fill="${sanded ? '#6d6038' : '#6b5722'}" stroke="#2b2413" stroke-width="3"/>
    <path d="${outline}" fill="#fff" filter="url(#grain)" opacity="${sanded ? 0.35 : 0.8}"/>
    ${worn > 0 ? `<ellipse cx="600" cy="430" rx="${200 + worn * 190}" ry="${140 + worn * 120}" fill="url(#pale)" opacity="${worn.toFixed(2)}"/>${prints}${scratches}` : ''}${strokes}`;
}

/** A straightedge on edge over a platform, a lamp behind it: light shows where the platform is low. */
function lightUnderStraightedge(gap: number, random: () => number): string {
  const laps =
    gap === 0
      ? range(
          46,
          (i) =>
            `<circle cx="${600 + (random() - 0.5) * 60}" cy="600" r="${12 + i * 11}" fill="none" stroke="#fff" opacity="0.1"/>`,
        )
      : '';
  const depth = gap * 150;
  const light =
    gap > 0
      ? `<path d="M330 470 Q600 ${470 + depth * 2} 870 470 Z" fill="#fff7c9"/><path d="M330 470 Q600 ${470 + depth * 2} 870 470 Z" fill="#fff3a0" filter="url(#soft)"/>`
      : '';
  return `<rect x="0" y="0" width="${WIDTH}" height="470" fill="#fff1c4" opacity="0.18"/>
    <clipPath id="top"><rect x="150" y="470" width="900" height="300"/></clipPath>
    <rect x="160" y="486" width="900" height="300" fill="#000" opacity="0.4" filter="url(#soft)"/>
    <rect x="150" y="470" width="900" height="300" fill="#9aa3a6" stroke="#3d474b" stroke-width="3"/>
    <g clip-path="url(#top)"><rect x="150" y="470" width="900" height="300" fill="#fff" filter="url(#grain)" opacity="0.3"/>${laps}</g>
    ${light}
    <rect x="60" y="390" width="1080" height="80" fill="#333d41"/><rect x="60" y="390" width="1080" height="10" fill="#5a676c"/>
    ${range(53, (i) => `<path d="M${80 + i * 20} 400 v${i % 5 === 0 ? 22 : 12}" stroke="#cfd6d8" stroke-width="1.6"/>`)}
    ${gap > 0.05 ? '<path d="M640 560 L980 640 l10 -26 L648 538 Z" fill="#c9d0d2" stroke="#596367" stroke-width="2"/>' : ''}`;
}

/** A cover that lies in ridges on a base whose poles cross its own. */
function ridges(): string {
  return `<rect x="160" y="124" width="900" height="660" fill="#000" opacity="0.4" filter="url(#soft)"/>
    <rect x="150" y="110" width="900" height="660" fill="#4d453a" stroke="#241f18" stroke-width="3"/>
    ${range(17, (i) => `<rect x="150" y="${122 + i * 38}" width="900" height="15" fill="#7a7062"/><rect x="150" y="${137 + i * 38}" width="900" height="9" fill="#2a251e" opacity="0.8"/>`)}
    <rect x="150" y="110" width="900" height="660" fill="#fff" filter="url(#grain)" opacity="0.25"/>
    ${range(5, (i) => `<path d="M${300 + i * 120} 210 v330" stroke="#d9c79c" stroke-width="22" stroke-dasharray="16 22" opacity="0.75"/>`)}`;
}

/** A base seen from the side that lets go of its plate at one edge, with a feeler in the gap. */
function liftedEdge(edge: 'front' | 'right', amount: number): string {
  const lift = 24 + amount * 60;
  const side = `<rect x="120" y="520" width="960" height="120" fill="#8d979b" stroke="#3d474b" stroke-width="3"/>
    <path d="M120 519 H760 Q960 ${519 - lift * 0.2} 1080 ${519 - lift} v-46 Q960 ${473 - lift * 0.2} 760 473 H120 Z" fill="#2f2a25" stroke="#14110e" stroke-width="3"/>
    <path d="M780 519 Q960 ${522 - lift * 0.2} 1080 ${522 - lift} V520 Z" fill="#d8b45a" opacity="0.85"/>
    <path d="M900 512 L1160 ${540 - lift / 2} v-9 L900 503 Z" fill="#dfe5e7" stroke="#596367" stroke-width="2"/>
    ${range(9, (i) => `<path d="M${800 + i * 30} 518 v${-lift * ((i + 1) / 12) ** 2}" stroke="#f3e2a8" stroke-width="2"/>`)}`;
  // The front edge is seen from the left end of the plate, the right one from its front.
  return edge === 'right' ? side : `<g transform="translate(1200 0) scale(-1 1)">${side}</g>`;
}

/** A film in its frame over dark cloth: haze in the middle, and the dents of what was stirred there. */
function film(haze: number, random: () => number): string {
  return `<rect x="160" y="164" width="900" height="600" rx="40" fill="#000" opacity="0.4" filter="url(#soft)"/>
    <rect x="150" y="150" width="900" height="600" rx="40" fill="#b9c1c4" stroke="#4a555a" stroke-width="4"/>
    ${range(12, (i) => `<circle cx="${210 + (i % 6) * 156}" cy="${i < 6 ? 184 : 716}" r="13" fill="#6b767b" stroke="#353f43" stroke-width="3"/>`)}
    <rect x="230" y="230" width="740" height="440" rx="20" fill="#20262a"/>
    <path d="M250 250 L520 250 L330 650 L250 650 Z" fill="#fff" opacity="0.1"/>
    <ellipse cx="610" cy="450" rx="270" ry="150" fill="url(#pale)" opacity="${haze.toFixed(2)}"/>
    ${range(Math.round(haze * 12), () => `<circle cx="${420 + random() * 380}" cy="${350 + random() * 200}" r="${5 + random() * 9}" fill="none" stroke="#e8edef" stroke-width="2" opacity="0.6"/>`)}`;
}
