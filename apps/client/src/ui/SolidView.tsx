import { View } from 'react-native';
import Svg, { Line, Polygon } from 'react-native-svg';
import { mixColors } from './mixColors';
import { usePalette } from './theme';

interface Props {
  corners: readonly (readonly [number, number, number])[];
  triangles: readonly (readonly [number, number, number])[];
  /** Pairs of corners along which the surface turns. */
  edges: readonly (readonly [number, number])[];
  label: string;
}

const WIDTH = 320;
const HEIGHT = 220;
/** Seen from the front right, from above. */
const SIDE = Math.cos(Math.PI / 6);
const RISE = Math.sin(Math.PI / 6);
const TOWARDS = [1, -1, 1] as const;

/** A solid as an isometric drawing: faces from far to near, with the edges that are seen. */
export function SolidView({ corners, triangles, edges, label }: Props) {
  const palette = usePalette();
  const flat = corners.map(([x, y, z]) => [(x + y) * SIDE, (x - y) * RISE - z] as const);
  const xs = flat.map(([x]) => x);
  const ys = flat.map(([, y]) => y);
  const [left, top] = [Math.min(...xs), Math.min(...ys)];
  const scale = Math.min((WIDTH - 20) / (Math.max(...xs) - left), (HEIGHT - 20) / (Math.max(...ys) - top));
  const at = (i: number) => [10 + (flat[i]![0] - left) * scale, 10 + (flat[i]![1] - top) * scale] as const;
  const seen = triangles
    .map((triangle) => ({ triangle, normal: normalOf(triangle.map((i) => corners[i]!)) }))
    .filter(({ normal }) => normal[0] * TOWARDS[0] + normal[1] * TOWARDS[1] + normal[2] * TOWARDS[2] > 1e-6)
    .map((face) => ({ ...face, depth: nearness(face.triangle.map((i) => corners[i]!)) }))
    .sort((p, q) => p.depth - q.depth);
  const drawn = new Set(seen.flatMap(({ triangle: [p, q, r] }) => [key(p, q), key(q, r), key(r, p)]));
  const turning = new Set(edges.map(([p, q]) => key(p, q)));
  return (
    <View role="img" aria-label={label} testID="solid-view">
      <Svg width="100%" height={HEIGHT} viewBox={`0 0 ${WIDTH} ${HEIGHT}`} preserveAspectRatio="xMinYMid meet">
        {seen.map(({ triangle, normal }, i) => {
          const light = 0.35 + 0.65 * Math.max(0, normal[2] * 0.8 - normal[1] * 0.25 + normal[0] * 0.1);
          const fill = mixColors(palette.hairline, palette.raised, Math.min(1, light));
          return (
            <Polygon
              key={i}
              points={triangle.map((corner) => at(corner).join(',')).join(' ')}
              fill={fill}
              stroke={fill}
              strokeWidth={0.7}
            />
          );
        })}
        {[...turning]
          .filter((edge) => drawn.has(edge))
          .map((edge) => {
            const [p, q] = edge.split(' ').map(Number) as [number, number];
            const [x1, y1] = at(p);
            const [x2, y2] = at(q);
            return (
              <Line
                key={edge}
                x1={x1}
                y1={y1}
                x2={x2}
                y2={y2}
                stroke={palette.ink}
                strokeWidth={1.5}
                strokeLinecap="round"
              />
            );
          })}
      </Svg>
    </View>
  );
}

const key = (p: number, q: number) => (p < q ? `${p} ${q}` : `${q} ${p}`);

type Corner = readonly [number, number, number];

function normalOf([a, b, c]: readonly Corner[]): Corner {
  const u = [b![0] - a![0], b![1] - a![1], b![2] - a![2]] as const;
  const w = [c![0] - a![0], c![1] - a![1], c![2] - a![2]] as const;
  const n = [u[1] * w[2] - u[2] * w[1], u[2] * w[0] - u[0] * w[2], u[0] * w[1] - u[1] * w[0]] as const;
  const size = Math.hypot(...n) || 1;
  return [n[0] / size, n[1] / size, n[2] / size];
}

const nearness = (corners: readonly Corner[]) =>
  corners.reduce((sum, [x, y, z]) => sum + x * TOWARDS[0] + y * TOWARDS[1] + z * TOWARDS[2], 0) / 3;
