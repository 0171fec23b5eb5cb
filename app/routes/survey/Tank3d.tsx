/** The tank in three dimensions, fuel lying level in it. The drawing library is fetched when it is first shown. */
import { useEffect, useRef, useState } from "react";
import {
  AmbientLight,
  BoxGeometry,
  BufferGeometry,
  Color,
  DirectionalLight,
  DoubleSide,
  EdgesGeometry,
  Group,
  LineBasicMaterial,
  LineSegments,
  Mesh,
  MeshLambertMaterial,
  PerspectiveCamera,
  Plane,
  Quaternion,
  Scene,
  Vector3,
  WebGLRenderer,
} from "three";
import type { Tank } from "~/core/plan/types";
import { facesOf } from "~/core/tanks/faces";
import { boundsOf } from "~/core/tanks/shape";
import { geometryOf } from "~/space/geometry";
import { Slider } from "~/ui/fields";
import { currentTheme, day, night } from "~/ui/theme";
import { Small, useTank } from "./tankContext";

/** What stands in the tank, as edges. */
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
    const { shell, sump } = facesOf(tank);
    const geometries = [shell, ...(sump.length > 0 ? [sump] : [])].map(geometryOf);
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
