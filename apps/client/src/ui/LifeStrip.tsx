import { View } from 'react-native';
import Svg, { Defs, Line, LinearGradient, Rect, Stop } from 'react-native-svg';
import { usePalette } from './theme';
import { withType } from './typeScale';
import { Words } from './Words';

export interface Notch {
  /** In the unit of the strip, since its beginning. */
  at: number;
  mark: string;
}

interface Props {
  used: number;
  expected: number;
  spread: number;
  notches?: readonly Notch[];
  label: string;
  /** Without figures, for rows of a list. */
  small?: boolean;
}

const WIDTH = 330;
const HEIGHT = 14;
/** For one figure, px. */
const ROOM = 64;

/** A rule of what was used: the past solid, the expected end as a fading band, notches where something was done. */
export function LifeStrip({ used, expected, spread, notches = [], label, small }: Props) {
  const palette = usePalette();
  // Bars are drawn as wide as there is room; figures keep their own shape beside them.
  const end = Math.max(expected + spread, used) * 1.04;
  const x = (value: number) => (Math.min(Math.max(value, 0), end) / end) * (WIDTH - 2) + 1;
  const top = 4;
  const [from, to] = [x(expected - spread), x(expected + spread)];
  return (
    <View role="img" aria-label={label}>
      {small || notches.length === 0 ? null : (
        <Figures at={joinedMarks(notches.map(({ at, mark }) => ({ share: x(at) / WIDTH, text: mark })))} />
      )}
      <Svg width="100%" height={HEIGHT} viewBox={`0 0 ${WIDTH} ${HEIGHT}`} preserveAspectRatio="none">
        <Defs>
          <LinearGradient id="fade" x1="0" y1="0" x2="1" y2="0">
            <Stop offset="0" stopColor={palette.ink} stopOpacity={0.5} />
            <Stop offset="1" stopColor={palette.ink} stopOpacity={0.04} />
          </LinearGradient>
        </Defs>
        <Line x1={1} y1={top + 3} x2={WIDTH - 1} y2={top + 3} stroke={palette.hairline} strokeWidth={2} />
        <Rect x={from} y={top} width={Math.max(2, to - from)} height={6} fill="url(#fade)" />
        <Rect x={1} y={top} width={Math.max(1, x(used) - 1)} height={6} fill={palette.ink} />
        {notches.map(({ at, mark }, i) => (
          <Line key={`${i}-${mark}`} x1={x(at)} y1={0} x2={x(at)} y2={HEIGHT} stroke={palette.accent} strokeWidth={2} />
        ))}
      </Svg>
      {small ? null : (
        <Figures
          at={[
            { share: 0, text: '0' },
            { share: x(expected) / WIDTH, text: String(Math.round(expected)) },
          ]}
        />
      )}
    </View>
  );
}

/** Letters that would stand closer than this share of the strip are told as one figure. */
const CLOSE = 0.06;

/** Marks of notches that lie beside each other, as one figure in their middle: each letter once, in order. */
export function joinedMarks(marks: readonly { share: number; text: string }[]): { share: number; text: string }[] {
  const groups: { shares: number[]; text: string }[] = [];
  for (const { share, text } of [...marks].sort((p, q) => p.share - q.share)) {
    const group = groups.at(-1);
    if (group && share - group.shares.at(-1)! < CLOSE) {
      group.shares.push(share);
      if (!group.text.includes(text)) group.text += text;
    } else groups.push({ shares: [share], text });
  }
  return groups.map(({ shares, text }) => ({ share: (shares[0]! + shares.at(-1)!) / 2, text }));
}

/** Words at their places along the strip, the first one from its very end on. */
function Figures({ at }: { at: readonly { share: number; text: string }[] }) {
  return (
    <View style={{ height: withType(19) }}>
      {at.map(({ share, text }, i) => (
        <View
          key={i}
          style={{ position: 'absolute', left: `${share * 100}%`, width: ROOM, marginLeft: share > 0 ? -ROOM / 2 : 0 }}
        >
          <Words size="small" tone="steel" figures align={share > 0 ? 'center' : 'left'}>
            {text}
          </Words>
        </View>
      ))}
    </View>
  );
}
