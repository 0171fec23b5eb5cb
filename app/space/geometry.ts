/** Faces as the three-dimensional library draws them. */
import { BufferGeometry, Float32BufferAttribute, ShapeUtils, Vector2, Vector3 } from "three";
import type { Corner, Face } from "~/core/tanks/faces";

/** Triangles of a flat face, which need not be convex. */
function trianglesOf(face: Face): Corner[] {
  const [first, second] = [face[0], face[1]];
  if (!first || !second) return [];
  if (face.length === 4) return [0, 1, 2, 0, 2, 3].map((i) => face[i] as Corner);
  const points = face.map((corner) => new Vector3(...corner));
  const normal = new Vector3();
  // By Newell's rule: good for corners that lie in one line as well.
  points.forEach((p, i) => {
    const q = points[(i + 1) % points.length] as Vector3;
    normal.add(new Vector3((p.y - q.y) * (p.z + q.z), (p.z - q.z) * (p.x + q.x), (p.x - q.x) * (p.y + q.y)));
  });
  const u = new Vector3(...second).sub(new Vector3(...first)).normalize();
  const v = normal.normalize().clone().cross(u);
  const flat = points.map((p) => new Vector2(p.dot(u), p.dot(v)));
  return ShapeUtils.triangulateShape(flat, []).flatMap((corners) => corners.map((i) => face[i] as Corner));
}

export function geometryOf(faces: readonly Face[]): BufferGeometry {
  const geometry = new BufferGeometry();
  geometry.setAttribute("position", new Float32BufferAttribute(faces.flatMap(trianglesOf).flat(), 3));
  geometry.computeVertexNormals();
  return geometry;
}
