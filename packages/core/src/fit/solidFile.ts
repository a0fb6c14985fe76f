import type { Geom3 } from '@jscad/modeling/src/geometries/types';
import modeling from '@jscad/modeling';
import { strToU8, zipSync } from 'fflate';
import { tidyLength } from './tidyLength';

const generalize = modeling.modifiers.generalize as unknown as (
  options: { triangulate: boolean },
  solid: Geom3,
) => Geom3;

/** A closed solid as corners and triangles, counter-clockwise seen from outside. */
export interface Mesh {
  /** x, y, z of each corner, mm. */
  corners: [number, number, number][];
  triangles: [number, number, number][];
  /** Edges where the surface turns, as pairs of corners: what a drawing shows. */
  edges: [number, number][];
}

/** Faces that meet at less than this are one face to the eye. cos 10°. */
const SAME_FACE = Math.cos((10 * Math.PI) / 180);

/** Triangles of a solid with shared corners. */
export function meshOf(solid: Geom3): Mesh {
  const triangulated = generalize({ triangulate: true }, solid);
  const corners: Mesh['corners'] = [];
  const known = new Map<string, number>();
  const cornerOf = (point: readonly number[]) => {
    const at = point.map((v) => tidyLength(v));
    const key = at.join(' ');
    if (!known.has(key)) {
      known.set(key, corners.length);
      corners.push(at as [number, number, number]);
    }
    return known.get(key)!;
  };
  const triangles = modeling.geometries.geom3
    .toPolygons(triangulated)
    .map(({ vertices }) => vertices.map(cornerOf) as [number, number, number])
    .filter(([p, q, r]) => p !== q && q !== r && r !== p);
  return { corners, triangles, edges: turningEdges(corners, triangles) };
}

function turningEdges(corners: Mesh['corners'], triangles: Mesh['triangles']): Mesh['edges'] {
  const normals = triangles.map((triangle) => normalOf(triangle.map((i) => corners[i]!)));
  const beside = new Map<string, number[]>();
  triangles.forEach((triangle, t) => {
    for (let i = 0; i < 3; i++) {
      const [p, q] = [triangle[i]!, triangle[(i + 1) % 3]!].sort((x, y) => x - y) as [number, number];
      const key = `${p} ${q}`;
      beside.set(key, [...(beside.get(key) ?? []), t]);
    }
  });
  return [...beside].flatMap(([key, [s, t]]) => {
    const turns = t === undefined || dot(normals[s!]!, normals[t]!) < SAME_FACE;
    return turns ? [key.split(' ').map(Number) as [number, number]] : [];
  });
}

export function normalOf([a, b, c]: number[][]): [number, number, number] {
  const u = b!.map((v, i) => v - a![i]!);
  const w = c!.map((v, i) => v - a![i]!);
  const n = [u[1]! * w[2]! - u[2]! * w[1]!, u[2]! * w[0]! - u[0]! * w[2]!, u[0]! * w[1]! - u[1]! * w[0]!];
  const size = Math.hypot(...n) || 1;
  return n.map((v) => v / size) as [number, number, number];
}
const dot = (p: number[], q: number[]) => p.reduce((sum, v, i) => sum + v * q[i]!, 0);

/** Binary STL, mm: 80 bytes of head, the number of triangles, and 50 bytes for each. */
export function stlOf({ corners, triangles }: Mesh): Uint8Array {
  const bytes = new Uint8Array(84 + 50 * triangles.length);
  bytes.set(strToU8('Even Bed, millimetres'));
  const view = new DataView(bytes.buffer);
  view.setUint32(80, triangles.length, true);
  triangles.forEach((triangle, t) => {
    const points = triangle.map((i) => corners[i]!);
    [normalOf(points), ...points].flat().forEach((value, i) => view.setFloat32(84 + 50 * t + 4 * i, value, true));
  });
  return bytes;
}

/** 3MF package, mm. Source: 3MF Core Specification 1.x (OPC zip with one model part). */
export function threeMfOf({ corners, triangles }: Mesh): Uint8Array {
  const vertices = corners.map(([x, y, z]) => `<vertex x="${x}" y="${y}" z="${z}"/>`).join('');
  const faces = triangles.map(([p, q, r]) => `<triangle v1="${p}" v2="${q}" v3="${r}"/>`).join('');
  const model = `${XML}<model unit="millimeter" xml:lang="en" xmlns="http://schemas.microsoft.com/3dmanufacturing/core/2015/02"><resources><object id="1" type="model"><mesh><vertices>${vertices}</vertices><triangles>${faces}</triangles></mesh></object></resources><build><item objectid="1"/></build></model>`;
  return zipSync(
    {
      '[Content_Types].xml': strToU8(
        `${XML}<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="model" ContentType="application/vnd.ms-package.3dmanufacturing-3dmodel+xml"/></Types>`,
      ),
      '_rels/.rels': strToU8(
        `${XML}<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Target="/3D/3dmodel.model" Id="rel0" Type="http://schemas.microsoft.com/3dmanufacturing/2013/01/3dmodel"/></Relationships>`,
      ),
      '3D/3dmodel.model': strToU8(model),
    },
    // A fixed date, so that the same spacer gives the same bytes.
    { mtime: new Date(1980, 0, 1) },
  );
}

const XML = '<?xml version="1.0" encoding="UTF-8"?>\n';
