/** The tank in three dimensions, fuel lying level in it. The drawing library is fetched when it is first shown. */
import { useEffect, useRef, useState } from "react";
import {
  AmbientLight,
  BoxGeometry,
  BufferGeometry,
  Color,
  CylinderGeometry,
  DirectionalLight,
  DoubleSide,
  EdgesGeometry,
  Float32BufferAttribute,
  Group,
  LineBasicMaterial,
  LineSegments,
  Mesh,
  MeshLambertMaterial,
  PerspectiveCamera,
  Plane,
  Quaternion,
  Scene,
  ShapeUtils,
  SphereGeometry,
  Vector2,
  Vector3,
  WebGLRenderer,
} from "three";
import type { SectionPoint, Tank, TankShape } from "~/core/plan/types";
import { shellFloorUnder } from "~/core/tanks/floor";
import { boundsOf, sectionOf } from "~/core/tanks/shape";
import { Slider } from "~/ui/fields";
import { currentTheme, day, night } from "~/ui/theme";
import { Small, useTank } from "./tankContext";

interface Station {
  xM: number;
  polygon: readonly SectionPoint[];
}

/** Sides between the sections, and the two ends filled in. Tank frame. */
function ruledGeometry(stations: readonly Station[]): BufferGeometry {
  const corners: number[] = [];
  const push = (x: number, [y, z]: SectionPoint) => corners.push(x, y, z);
  for (let s = 1; s < stations.length; s++) {
    const [a, b] = [stations[s - 1], stations[s]] as [Station, Station];
    a.polygon.forEach((p, k) => {
      const next = (k + 1) % a.polygon.length;
      const [p2, q, q2] = [a.polygon[next], b.polygon[k], b.polygon[next]] as [
        SectionPoint,
        SectionPoint,
        SectionPoint,
      ];
      push(a.xM, p);
      push(a.xM, p2);
      push(b.xM, q2);
      push(a.xM, p);
      push(b.xM, q2);
      push(b.xM, q);
    });
  }
  for (const { xM, polygon } of [stations[0], stations.at(-1)] as [Station, Station]) {
    const flat = polygon.map(([y, z]) => new Vector2(y, z));
    for (const face of ShapeUtils.triangulateShape(flat, []))
      for (const i of face) push(xM, polygon[i] as SectionPoint);
  }
  const geometry = new BufferGeometry();
  geometry.setAttribute("position", new Float32BufferAttribute(corners, 3));
  geometry.computeVertexNormals();
  return geometry;
}

function geometriesOf(shape: TankShape): BufferGeometry[] {
  if (shape.kind === "loft") return [ruledGeometry(shape.sections)];
  if (shape.kind !== "cylinder")
    return [ruledGeometry([0, shape.lengthM].map((xM) => ({ xM, polygon: sectionOf(shape) })))];
  const { axis, diameterM, lengthM, endDepthM = 0 } = shape;
  const r = diameterM / 2;
  // Built along y, as the library does, then laid along its axis and moved to its place.
  const parts: BufferGeometry[] = [new CylinderGeometry(r, r, lengthM, 48, 1, endDepthM > 0)];
  if (endDepthM > 0)
    for (const way of [1, -1]) {
      const dish = new SphereGeometry(r, 48, 12, 0, 2 * Math.PI, 0, Math.PI / 2);
      dish.scale(1, (way * endDepthM) / r, 1);
      dish.translate(0, (way * lengthM) / 2, 0);
      parts.push(dish);
    }
  for (const part of parts) {
    if (axis === "x") part.rotateZ(-Math.PI / 2);
    if (axis === "z") part.rotateX(Math.PI / 2);
    const middle = (name: typeof axis) => (name === axis ? lengthM / 2 : r);
    part.translate(middle("x"), middle("y"), middle("z"));
  }
  return parts;
}

/** What hangs under the tank, filled as it is; and what stands in it, as edges. */
function sumpGeometry(tank: Tank): BufferGeometry[] {
  const { sump } = tank;
  if (!sump) return [];
  const { xM, yM, diameterM, depthM } = sump;
  const pot = new CylinderGeometry(diameterM / 2, diameterM / 2, depthM, 32);
  pot.rotateX(Math.PI / 2);
  pot.translate(xM, yM, shellFloorUnder(tank, xM, yM) - depthM / 2);
  return [pot];
}

function insideEdges({ internals = [], well }: Tank): BufferGeometry[] {
  return [...internals, ...(well ? [well] : [])].map(({ low, high }) => {
    const box = new BoxGeometry(high.xM - low.xM, high.yM - low.yM, high.zM - low.zM);
    box.translate((low.xM + high.xM) / 2, (low.yM + high.yM) / 2, (low.zM + high.zM) / 2);
    const edges = new EdgesGeometry(box);
    box.dispose();
    return edges;
  });
}

export default function Tank3d() {
  const { tank, tilted, offset } = useTank();
  const canvas = useRef<HTMLCanvasElement>(null);
  const [fromDeg, setFromDeg] = useState(35);
  const [canDraw] = useState(() => document.createElement("canvas").getContext("webgl2") !== null);
  useEffect(() => {
    const element = canvas.current;
    if (!element || !canDraw) return;
    const renderer = new WebGLRenderer({ canvas: element, antialias: true, preserveDrawingBuffer: true });
    const scheme = currentTheme() === "night" ? night : day;
    const scene = new Scene();
    scene.background = new Color(scheme.panel);
    const { x, y, z } = boundsOf(tank.shape);
    const middle = new Vector3((x[0] + x[1]) / 2, (y[0] + y[1]) / 2, (z[0] + z[1]) / 2);
    const reach = Math.hypot(x[1] - x[0], y[1] - y[0], z[1] - z[0]);
    const tilt = new Group();
    const up = new Vector3(...tilted.up);
    tilt.quaternion.copy(new Quaternion().setFromUnitVectors(up, new Vector3(0, 0, 1)));
    const body = new Group();
    body.position.copy(middle).negate();
    tilt.add(body);
    scene.add(tilt);
    // What lies over the surface is cut away from the fuel. The plane is in the world's frame, where the vertical is z.
    const surface = new Plane(new Vector3(0, 0, -1), offset - up.dot(middle));
    const wall = new MeshLambertMaterial({
      color: scheme.raised,
      transparent: true,
      opacity: 0.28,
      side: DoubleSide,
      depthWrite: false,
    });
    const fuel = new MeshLambertMaterial({
      color: scheme.atRest,
      side: DoubleSide,
      clippingPlanes: [surface],
    });
    const ink = new LineBasicMaterial({ color: scheme.ink });
    renderer.localClippingEnabled = true;
    const geometries = [...geometriesOf(tank.shape), ...sumpGeometry(tank)];
    const edges: BufferGeometry[] = geometries.map((geometry) => new EdgesGeometry(geometry, 25));
    for (const box of insideEdges(tank)) {
      edges.push(box);
      body.add(new LineSegments(box, ink));
    }
    geometries.forEach((geometry, i) => {
      body.add(new Mesh(geometry, fuel), new Mesh(geometry, wall), new LineSegments(edges[i], ink));
    });
    for (const port of tank.ports) {
      const line = new BufferGeometry().setFromPoints(
        [port.mouth, port.outside].map(({ xM, yM, zM }) => new Vector3(xM, yM, zM)),
      );
      edges.push(line);
      body.add(
        new LineSegments(line, port.role === "return" ? new LineBasicMaterial({ color: scheme.back }) : ink),
      );
    }
    scene.add(new AmbientLight(0xffffff, 2.2));
    const lamp = new DirectionalLight(0xffffff, 1.2);
    lamp.position.set(1, -2, 3);
    scene.add(lamp);
    const camera = new PerspectiveCamera(32, 400 / 380, 0.01, 100);
    camera.up.set(0, 0, 1);
    const turn = (fromDeg * Math.PI) / 180;
    camera.position.set(Math.cos(turn), -Math.sin(turn), 0.55).multiplyScalar(1.75 * reach);
    camera.lookAt(0, 0, 0);
    renderer.setPixelRatio(Math.min(2, window.devicePixelRatio));
    renderer.setSize(400, 380, false);
    renderer.render(scene, camera);
    return () => {
      for (const one of [...geometries, ...edges]) one.dispose();
      for (const one of [wall, fuel, ink]) one.dispose();
      renderer.dispose();
    };
  }, [tank, tilted, offset, fromDeg, canDraw]);
  return (
    <div>
      <canvas
        ref={canvas}
        width={400}
        height={380}
        role="img"
        aria-label={`${tank.name} in three dimensions`}
        style={{
          width: "100%",
          aspectRatio: "400 / 340",
          border: "1px solid var(--hairline)",
          display: "block",
        }}
      />
      {!canDraw && (
        <Small>This browser draws no three dimensions; section, side and plan show the same tank.</Small>
      )}
      <Slider
        label="Seen from"
        value={fromDeg}
        min={0}
        max={360}
        step={5}
        output={`${fromDeg}°`}
        onChange={setFromDeg}
      />
    </div>
  );
}
