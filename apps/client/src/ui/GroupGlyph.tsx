import type { SurfaceGroup } from '@even-bed/core';
import type { ReactNode } from 'react';
import Svg, { Circle, Line, Path, Rect } from 'react-native-svg';
import { usePalette, type Palette } from './theme';

const WIDTH = 56;
const HEIGHT = 46;

/** A surface from above by its group, small: what it is made of shows in how it is drawn. */
export function GroupGlyph({ group }: { group: SurfaceGroup }) {
  const palette = usePalette();
  return (
    <Svg width={WIDTH} height={HEIGHT} viewBox={`0 0 ${WIDTH} ${HEIGHT}`} aria-hidden>
      {DRAWN[group](palette)}
    </Svg>
  );
}

const plate = ({ paper, ink }: Palette, height = 34) => (
  <Rect x={8} y={4} width={40} height={height} fill={paper} stroke={ink} strokeWidth={1.6} />
);

const DRAWN: Record<SurfaceGroup, (palette: Palette) => ReactNode> = {
  // With its ear in front, to lift it by.
  sheet: (p) => (
    <>
      <Path d="M8 4 H48 V38 H36 L33 43 H23 L20 38 H8 Z" fill={p.paper} stroke={p.ink} strokeWidth={1.6} />
      {[14, 21, 28].map((y, i) =>
        [15, 23, 31, 39].map((x) => <Circle key={`${x} ${y}`} cx={x + (i % 2) * 3} cy={y} r={1} fill={p.steel} />),
      )}
    </>
  ),
  // A shine across it.
  glass: (p) => (
    <>
      {plate(p)}
      <Line x1={14} y1={30} x2={32} y2={10} stroke={p.steel} strokeWidth={1.4} />
      <Line x1={22} y1={32} x2={42} y2={10} stroke={p.steel} strokeWidth={1.4} />
    </>
  ),
  // Woven.
  laminate: (p) => (
    <>
      {plate(p)}
      {[12, 20, 28].map((y) => (
        <Line key={y} x1={9} y1={y} x2={47} y2={y} stroke={p.steel} strokeWidth={1} />
      ))}
      {[18, 28, 38].map((x) => (
        <Line key={x} x1={x} y1={5} x2={x} y2={37} stroke={p.steel} strokeWidth={1} />
      ))}
    </>
  ),
  // A corner peeled up.
  cover: (p) => (
    <>
      <Path d="M8 4 H48 V28 L38 38 H8 Z" fill={p.paper} stroke={p.ink} strokeWidth={1.6} />
      <Path d="M48 28 L38 38 L37 27 Z" fill={p.steel} stroke={p.ink} strokeWidth={1.4} />
    </>
  ),
  // The poles of its magnet.
  base: (p) => (
    <>
      {plate(p)}
      {[10, 18, 26].map((y) => (
        <Rect key={y} x={9} y={y} width={38} height={4} fill={p.steel} opacity={0.7} />
      ))}
    </>
  ),
  // From the side, on its arm.
  platform: (p) => (
    <>
      <Rect x={24} y={4} width={8} height={14} fill={p.paper} stroke={p.ink} strokeWidth={1.6} />
      <Path d="M10 18 H46 V36 H10 Z" fill={p.paper} stroke={p.ink} strokeWidth={1.6} />
      <Line x1={10} y1={36} x2={46} y2={36} stroke={p.ink} strokeWidth={4} />
    </>
  ),
  // From the side, bent.
  'flex-plate': (p) => (
    <>
      <Path d="M6 18 Q28 34 50 18" fill="none" stroke={p.ink} strokeWidth={4} />
      <Path d="M6 30 Q28 46 50 30" fill="none" stroke={p.steel} strokeWidth={1.4} strokeDasharray="3 3" />
    </>
  ),
  // Clear, in its frame of screws.
  film: (p) => (
    <>
      {plate(p)}
      <Rect x={15} y={11} width={26} height={20} fill={p.raised} stroke={p.ink} strokeWidth={1.2} />
      {[
        [11.5, 7.5],
        [44.5, 7.5],
        [11.5, 34.5],
        [44.5, 34.5],
      ].map(([x, y]) => (
        <Circle key={`${x} ${y}`} cx={x} cy={y} r={1.8} fill={p.ink} />
      ))}
    </>
  ),
};
