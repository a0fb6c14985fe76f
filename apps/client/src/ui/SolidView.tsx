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

/** A solid as an isometric drawing: faces from far to near, over them the parts of its edges that nothing hides. */
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
    .filter(({ normal }) => dot(normal, TOWARDS) > 1e-6)
    .map((face) => ({ ...face, depth: Math.max(...face.triangle.map((i) => nearness(corners[i]!))) }))
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
            const [from, to] = [at(p), at(q)];
            const on = (share: number) => [0, 1].map((axis) => from[axis]! + (to[axis]! - from[axis]!) * share);
            return seenParts(corners[p]!, corners[q]!, (point) => hidden(point, triangles, corners)).map(([a, b]) => {
              const [x1, y1] = on(a);
              const [x2, y2] = on(b);
              return (
                <Line
                  key={`${edge} ${a}`}
                  x1={x1}
                  y1={y1}
                  x2={x2}
                  y2={y2}
                  stroke={palette.ink}
                  strokeWidth={1.5}
                  strokeLinecap="round"
                />
              );
            });
          })}
      </Svg>
    </View>
  );
}

const key = (p: number, q: number) => (p < q ? `${p} ${q}` : `${q} ${p}`);

type Corner = readonly [number, number, number];

function normalOf([a, b, c]: readonly Corner[]): Corner {
  const n = cross(minus(b!, a!), minus(c!, a!));
  const size = Math.hypot(...n) || 1;
  return [n[0] / size, n[1] / size, n[2] / size];
}

const nearness = ([x, y, z]: Corner) => x * TOWARDS[0] + y * TOWARDS[1] + z * TOWARDS[2];

/** Into so many parts an edge is divided when it is asked which of them are seen. */
const PARTS = 12;

/** The parts of an edge that nothing hides, as shares of its length. */
function seenParts(from: Corner, to: Corner, isHidden: (point: Corner) => boolean): [number, number][] {
  const parts: [number, number][] = [];
  for (let i = 0; i < PARTS; i++) {
    const share = (i + 0.5) / PARTS;
    const point = [0, 1, 2].map((axis) => from[axis]! + (to[axis]! - from[axis]!) * share) as unknown as Corner;
    if (isHidden(point)) continue;
    const last = parts.at(-1);
    if (last && last[1] === i / PARTS) last[1] = (i + 1) / PARTS;
    else parts.push([i / PARTS, (i + 1) / PARTS]);
  }
  return parts;
}

/** Whether a triangle lies between a point and the eye (Möller & Trumbore 1997). */
function hidden(point: Corner, triangles: Props['triangles'], corners: Props['corners']): boolean {
  return triangles.some(([a, b, c]) => {
    const [p, q, r] = [corners[a]!, corners[b]!, corners[c]!];
    const u = minus(q, p);
    const v = minus(r, p);
    const h = cross(TOWARDS, v);
    const determinant = dot(u, h);
    if (Math.abs(determinant) < 1e-12) return false;
    const s = minus(point, p);
    const first = dot(s, h) / determinant;
    if (first < 1e-9 || first > 1 - 1e-9) return false;
    const k = cross(s, u);
    const second = dot(TOWARDS, k) / determinant;
    return second >= 1e-9 && first + second <= 1 - 1e-9 && dot(v, k) / determinant > 1e-6;
  });
}

const minus = (p: Corner, q: Corner): Corner => [p[0] - q[0], p[1] - q[1], p[2] - q[2]];
const dot = (p: Corner, q: Corner) => p[0] * q[0] + p[1] * q[1] + p[2] * q[2];
const cross = (p: Corner, q: Corner): Corner => [
  p[1] * q[2] - p[2] * q[1],
  p[2] * q[0] - p[0] * q[2],
  p[0] * q[1] - p[1] * q[0],
];
