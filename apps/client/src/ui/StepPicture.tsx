import type { ReactNode } from 'react';
import { View } from 'react-native';
import Svg, { Circle, G, Line, Path, Polygon, Rect, Text as SvgText } from 'react-native-svg';
import { FAMILY, usePalette, type Palette } from './theme';

interface Props {
  name: string;
  /** The place that is meant, of a picture with several, from 1 on. */
  mark?: number | undefined;
  label: string;
}

/** A drawing of what the hands do, on one plate for all: FRONT at the bottom. */
export function StepPicture({ name, mark, label }: Props) {
  const palette = usePalette();
  const draw = DRAWINGS[name];
  if (!draw) return null;
  return (
    <View role="img" aria-label={label} testID={`picture-${name}`}>
      <Svg width="100%" height={190} viewBox="0 0 330 190" preserveAspectRatio="xMidYMid meet">
        {draw(palette, mark)}
      </Svg>
    </View>
  );
}

function Plate({ palette, children, front = true }: { palette: Palette; children?: ReactNode; front?: boolean }) {
  return (
    <G>
      <Rect x={65} y={12} width={200} height={150} fill={palette.raised} stroke={palette.ink} strokeWidth={1.6} />
      {children}
      {front ? (
        <G>
          <Polygon points="143,162 187,162 179,176 151,176" fill={palette.ink} />
          <SvgText x={165} y={173} fontSize={9} fontFamily={FAMILY.bold} fill={palette.paper} textAnchor="middle">
            FRONT
          </SvgText>
        </G>
      ) : null}
    </G>
  );
}

function Arrow({
  from: [x1, y1],
  to: [x2, y2],
  color,
  width = 3,
}: {
  from: [number, number];
  to: [number, number];
  color: string;
  width?: number;
}) {
  const angle = Math.atan2(y2 - y1, x2 - x1);
  const wing = (turn: number) => `${x2 - 11 * Math.cos(angle + turn)},${y2 - 11 * Math.sin(angle + turn)}`;
  return (
    <G>
      <Line x1={x1} y1={y1} x2={x2} y2={y2} stroke={color} strokeWidth={width} />
      <Polygon points={`${x2},${y2} ${wing(0.45)} ${wing(-0.45)}`} fill={color} />
    </G>
  );
}

const words = (palette: Palette, x: number, y: number, text: string, size = 12) => (
  <SvgText x={x} y={y} fontSize={size} fontFamily={FAMILY.regular} fill={palette.ink} textAnchor="middle">
    {text}
  </SvgText>
);

const DRAWINGS: Record<string, (palette: Palette, mark?: number) => ReactNode> = {
  'liner-strip': (p) => (
    <Plate palette={p}>
      <Rect x={65} y={12} width={200} height={36} fill={p.middle} stroke={p.ink} />
      <Line x1={65} y1={48} x2={265} y2={48} stroke={p.ink} strokeDasharray="5 4" strokeWidth={2} />
      {words(p, 165, 35, 'adhesive, don’t touch')}
      {words(p, 165, 105, 'liner stays on')}
      <Line x1={52} y1={12} x2={52} y2={48} stroke={p.ink} />
      <Line x1={46} y1={12} x2={58} y2={12} stroke={p.ink} />
      <Line x1={46} y1={48} x2={58} y2={48} stroke={p.ink} />
      {words(p, 32, 34, '40')}
    </Plate>
  ),
  'centre-out': (p) => (
    <Plate palette={p}>
      <Arrow from={[165, 87]} to={[80, 87]} color={p.accent} />
      <Arrow from={[165, 87]} to={[250, 87]} color={p.accent} />
      <Arrow from={[165, 87]} to={[165, 24]} color={p.accent} />
      <Arrow from={[165, 87]} to={[165, 150]} color={p.accent} />
      <Circle cx={165} cy={87} r={8} fill={p.accent} />
    </Plate>
  ),
  'six-lines': (p, mark) => (
    <Plate palette={p}>
      {[
        [105, 20, 105, 154],
        [225, 20, 225, 154],
        [72, 130, 258, 130],
        [72, 45, 258, 45],
        [72, 154, 258, 20],
        [72, 20, 258, 154],
      ].map(([x1, y1, x2, y2], i) => {
        const place = { x1: x1!, y1: y1!, x2: x2!, y2: y2! };
        if (mark === undefined) return <Line key={i} {...place} stroke={p.accent} strokeWidth={2.5} />;
        // Of several the one that is meant is a thick bar with its ends marked; the others stay as thin dashes.
        if (i + 1 !== mark)
          return <Line key={i} {...place} stroke={p.steel} strokeWidth={1} strokeDasharray="3 5" opacity={0.7} />;
        return (
          <G key={i}>
            <Line {...place} stroke={p.accent} strokeWidth={8} strokeLinecap="round" />
            <Circle cx={place.x1} cy={place.y1} r={6} fill={p.paper} stroke={p.accent} strokeWidth={3} />
            <Circle cx={place.x2} cy={place.y2} r={6} fill={p.paper} stroke={p.accent} strokeWidth={3} />
          </G>
        );
      })}
    </Plate>
  ),
  'front-mark': (p) => (
    <Plate palette={p}>
      <Rect x={80} y={24} width={170} height={126} fill={p.middle} stroke={p.ink} />
      <Polygon points="155,150 175,150 165,132" fill={p.stop} />
      {words(p, 165, 90, 'marks meet at the front')}
    </Plate>
  ),
  crosswise: (p, mark) => (
    <Plate palette={p}>
      {[
        [90, 36, '1'],
        [240, 138, '2'],
        [240, 36, '3'],
        [90, 138, '4'],
      ].map(([x, y, n], i) => (
        <G key={n}>
          <Circle
            cx={x as number}
            cy={y as number}
            r={15}
            fill={p.paper}
            stroke={i + 1 === mark ? p.accent : p.ink}
            strokeWidth={i + 1 === mark ? 6 : 2}
          />
          {words(p, x as number, (y as number) + 5, n as string, 15)}
        </G>
      ))}
      <Arrow from={[106, 47]} to={[222, 126]} color={p.accent} width={2} />
      <Arrow from={[224, 47]} to={[108, 126]} color={p.accent} width={2} />
    </Plate>
  ),
  'peel-warm': (p) => (
    <G>
      <Rect x={40} y={120} width={250} height={18} fill={p.raised} stroke={p.ink} strokeWidth={1.6} />
      <Path d="M60 119 H190 C235 119 245 90 200 76" stroke={p.stop} strokeWidth={6} fill="none" />
      <Arrow from={[200, 76]} to={[120, 66]} color={p.accent} />
      {words(p, 165, 165, 'low, flat back over itself')}
      {[80, 130, 180, 230].map((x) => (
        <Path key={x} d={`M${x} 112 q5 -6 0 -12 q-5 -6 0 -12`} stroke={p.stop} strokeWidth={1.5} fill="none" />
      ))}
    </G>
  ),
  'empty-vat': (p) => (
    <G>
      <Rect x={105} y={20} width={120} height={26} fill={p.raised} stroke={p.ink} strokeWidth={1.6} />
      <Arrow from={[165, 52]} to={[165, 92]} color={p.accent} />
      <Path d="M80 80 V132 H250 V80" stroke={p.ink} strokeWidth={2.4} fill="none" />
      <Line x1={80} y1={132} x2={250} y2={132} stroke={p.accent} strokeWidth={3} />
      <Rect x={70} y={140} width={190} height={12} fill={p.middle} stroke={p.ink} />
      <Line x1={270} y1={100} x2={270} y2={132} stroke={p.stop} strokeWidth={2} />
      {words(p, 296, 120, 'gap')}
      {words(p, 165, 174, 'empty vat, slowly, nothing touches')}
    </G>
  ),
  'score-snap': (p) => (
    <G>
      <Rect x={45} y={60} width={240} height={20} fill={p.raised} stroke={p.ink} strokeWidth={1.6} />
      <Line x1={175} y1={60} x2={175} y2={80} stroke={p.stop} strokeWidth={2.5} strokeDasharray="4 3" />
      <Rect x={30} y={82} width={145} height={16} fill={p.middle} stroke={p.ink} />
      <Arrow from={[250, 45]} to={[250, 110]} color={p.accent} />
      <Circle cx={175} cy={48} r={9} fill="none" stroke={p.ink} strokeWidth={2} />
      {words(p, 165, 140, 'score once from edge to edge, snap over the table’s edge')}
    </G>
  ),
  countersink: (p) => (
    <G>
      <Path d="M40 90 H130 L150 110 V150 H40 Z" fill={p.raised} stroke={p.ink} />
      <Path d="M290 90 H200 L180 110 V150 H290 Z" fill={p.raised} stroke={p.ink} />
      <Path d="M131 89 H199 L179 109 V165 H151 V109 Z" fill={p.middle} stroke={p.ink} strokeWidth={1.6} />
      <Path d="M131 70 L165 104 L199 70" stroke={p.stop} strokeWidth={1.6} fill="none" strokeDasharray="4 3" />
      {words(p, 165, 62, '90°', 14)}
      {words(p, 250, 82, 'flush')}
    </G>
  ),
  washers: (p) => (
    <G>
      <Rect x={45} y={30} width={240} height={14} fill={p.raised} stroke={p.ink} />
      <Path d="M135 48 L195 58 L135 68 L195 78 L135 88 L195 98" stroke={p.ink} strokeWidth={3} fill="none" />
      {[104, 112, 120].map((y) => (
        <Rect key={y} x={125} y={y} width={80} height={6} fill={p.accent} />
      ))}
      <Rect x={45} y={128} width={240} height={14} fill={p.middle} stroke={p.ink} />
      <Line x1={165} y1={22} x2={165} y2={160} stroke={p.steel} strokeWidth={6} />
      {words(p, 252, 116, 'washers')}
    </G>
  ),
  'film-frame': (p) => (
    <G>
      <Rect x={65} y={16} width={200} height={140} fill="none" stroke={p.ink} strokeWidth={1.4} strokeDasharray="6 4" />
      <Rect x={85} y={32} width={160} height={108} fill={p.raised} stroke={p.ink} strokeWidth={8} />
      {words(p, 165, 90, 'the same over all sides')}
      {words(p, 165, 176, 'protective film off both sides')}
    </G>
  ),
  'trim-edge': (p) => (
    <G>
      <Rect x={40} y={92} width={200} height={18} fill={p.raised} stroke={p.ink} strokeWidth={1.6} />
      <Rect x={40} y={82} width={236} height={9} fill={p.middle} stroke={p.ink} />
      <Line x1={240} y1={50} x2={240} y2={120} stroke={p.stop} strokeWidth={2.4} strokeDasharray="5 4" />
      <Arrow from={[240, 46]} to={[240, 126]} color={p.stop} />
      {words(p, 165, 150, 'along the edge, blade away from you')}
    </G>
  ),
  'proud-clip': (p) => (
    <G>
      <Rect x={40} y={110} width={250} height={22} fill={p.raised} stroke={p.ink} strokeWidth={1.6} />
      <Rect x={40} y={94} width={160} height={16} fill={p.middle} stroke={p.ink} />
      <Path d="M290 140 H214 V76 H236 V128" fill={p.paper} stroke={p.ink} strokeWidth={2} />
      <Line x1={30} y1={93} x2={300} y2={93} stroke={p.accent} strokeWidth={2} strokeDasharray="6 4" />
      <Line x1={225} y1={76} x2={225} y2={93} stroke={p.stop} strokeWidth={3} />
      {words(p, 120, 84, 'top of the base')}
      {words(p, 252, 70, 'proud')}
      {words(p, 165, 164, 'grind it down, or notch the base round it')}
    </G>
  ),
  'magnet-under-board': (p) => (
    <G>
      <Rect x={45} y={60} width={240} height={18} fill={p.raised} stroke={p.ink} strokeWidth={1.6} />
      <Rect x={51} y={79} width={228} height={12} fill={p.middle} stroke={p.ink} />
      <Arrow from={[165, 120]} to={[90, 98]} color={p.accent} width={2.4} />
      <Arrow from={[165, 120]} to={[240, 98]} color={p.accent} width={2.4} />
      {words(p, 165, 52, 'board, face down')}
      {words(p, 165, 140, 'magnet within the edges, centre outward')}
    </G>
  ),
  'sheet-as-template': (p) => (
    <Plate palette={p}>
      <Rect x={78} y={24} width={174} height={126} fill={p.middle} stroke={p.ink} />
      <Line x1={252} y1={24} x2={252} y2={150} stroke={p.stop} strokeWidth={2.6} strokeDasharray="5 4" />
      <Arrow from={[252, 30]} to={[252, 122]} color={p.stop} width={2} />
      {words(p, 165, 84, 'sheet on the magnet')}
      {words(p, 165, 102, 'the knife runs along it')}
    </Plate>
  ),
  'release-cold': (p) => (
    <G>
      <Rect x={40} y={110} width={250} height={14} fill={p.raised} stroke={p.ink} strokeWidth={1.6} />
      <Path d="M110 108 L220 104 L220 66 L110 66 Z" fill={p.middle} stroke={p.ink} strokeWidth={1.6} />
      <Line x1={165} y1={20} x2={165} y2={52} stroke={p.accent} strokeWidth={3} />
      <Line x1={151} y1={28} x2={179} y2={44} stroke={p.accent} strokeWidth={3} />
      <Line x1={179} y1={28} x2={151} y2={44} stroke={p.accent} strokeWidth={3} />
      <Arrow from={[240, 100]} to={[262, 74]} color={p.accent} width={2.4} />
      {words(p, 165, 150, 'as cold as the room: it lets go at its edge')}
    </G>
  ),
};
