import { motorFigure, turnFigure } from '@even-bed/words/turn';
import { Circle, G, Line, Path, Text } from 'react-native-svg';
import { currentManner } from './manner';
import { FAMILY, usePalette } from './theme';

interface Props {
  /** Centre on the drawing. */
  x: number;
  y: number;
  /** The turn as the technician sees it, + clockwise. */
  turns: number;
  made: boolean;
  /** A motor drives it: turns are mm, + up, and there is nothing to turn. */
  motor?: boolean;
}

export const DIAL_RADIUS = 30;
const RING = 23;
const WIDTH = 8;
/** A whole ring says one turn or more; the figure says how many. */
const FULL = 0.985;

/** The turn at one adjuster: a ring whose arc is the turn, with its arrow and its size. Drawn inside an Svg. */
export function TurnDial({ x, y, turns, made, motor = false }: Props) {
  const palette = usePalette();
  const share = motor ? 0 : Math.min(Math.abs(turns), FULL);
  const figure = motor ? motorFigure(turns, currentManner()) : turnFigure(turns, currentManner());
  const color = made ? palette.ready : palette.accent;
  return (
    <G x={x} y={y}>
      <Circle r={DIAL_RADIUS} fill={palette.raised} stroke={palette.ink} strokeWidth={1.5} />
      <Circle r={RING} fill="none" stroke={palette.hairline} strokeWidth={WIDTH} />
      {Array.from({ length: 8 }, (_, i) => (
        <Line
          key={i}
          x1={0}
          x2={0}
          y1={-RING - 6.5}
          y2={-RING - 3}
          stroke={palette.steel}
          strokeWidth={1}
          rotation={i * 45}
          origin="0, 0"
        />
      ))}
      {share > 0 ? <TurnArc share={share} clockwise={turns > 0} color={color} /> : null}
      {made ? (
        <Path d="M-7 0 L-2 6 L8 -6" stroke={color} strokeWidth={3.5} fill="none" />
      ) : (
        <Text
          textAnchor="middle"
          y={5}
          fontSize={figure.length > 3 ? 13 : 16}
          fontFamily={FAMILY.bold}
          fill={turns !== 0 ? palette.ink : palette.steel}
        >
          {figure}
        </Text>
      )}
    </G>
  );
}

function TurnArc({ share, clockwise, color }: { share: number; clockwise: boolean; color: string }) {
  const sense = clockwise ? 1 : -1;
  const angle = sense * share * 2 * Math.PI;
  const at = (a: number, radius: number) => [radius * Math.sin(a), -radius * Math.cos(a)] as const;
  const [ex, ey] = at(angle, RING);
  // The head's base stands across the ring at the arc's end, its tip an eighth of a radian further on.
  const [ix, iy] = at(angle, RING - 7.5);
  const [ox, oy] = at(angle, RING + 7.5);
  const [tx, ty] = at(angle + sense * 0.42, RING);
  return (
    <>
      <Path
        d={`M0 ${-RING} A${RING} ${RING} 0 ${share > 0.5 ? 1 : 0} ${clockwise ? 1 : 0} ${ex} ${ey}`}
        stroke={color}
        strokeWidth={WIDTH}
        fill="none"
      />
      <Path d={`M${ix} ${iy} L${ox} ${oy} L${tx} ${ty} Z`} fill={color} />
    </>
  );
}
