/** The vehicle turned by hand in three dimensions. The drawing library is fetched when it is first shown. */
import { type KeyboardEvent, useEffect, useMemo, useRef, useState } from "react";
import styled from "styled-components";
import {
  AmbientLight,
  Box3,
  type BufferGeometry,
  Color,
  CurvePath,
  DirectionalLight,
  DoubleSide,
  EdgesGeometry,
  Group,
  LineBasicMaterial,
  LineCurve3,
  LineSegments,
  type Material,
  Mesh,
  MeshLambertMaterial,
  PerspectiveCamera,
  Plane,
  Raycaster,
  Scene,
  TorusGeometry,
  TubeGeometry,
  Vector2,
  Vector3,
  WebGLRenderer,
} from "three";
import { OrbitControls } from "three/examples/jsm/controls/OrbitControls.js";
import type { Id, Position } from "~/core/kinds/record";
import { DEGREE_RAD } from "~/core/units/factors";
import type { LineKind } from "~/plumbing/edges";
import { geometryOf } from "~/space/geometry";
import { useJob } from "~/state/job";
import { currentTheme, day, night, type Scheme } from "~/ui/theme";
import { type Body, cornersOf, type LaidRun, type VehicleScene } from "./scene";

const Box = styled.div`
  position: relative; min-width: 0; min-height: 0; border-top: 1px solid var(--hairline); border-left: 1px solid var(--hairline); background: var(--ground);
  canvas { display: block; width: 100% !important; height: 100% !important; cursor: grab; outline-offset: -3px; }
  p { position: absolute; left: 10px; top: 4px; margin: 0; font-size: 13px; font-weight: 600; font-stretch: 78%; color: var(--soft); pointer-events: none; }
`;

/** Degrees a key turns it by. */
const KEY_TURN_RAD = Math.PI / 24;
/** A hose is shown at least this thick, m: its bore says nothing from afar. */
const THINNEST_M = 0.012;

const FIELD_DEG = 28;
/** A vehicle that is drawn so much larger or smaller than it was is another sight. */
const RESIZED = 0.15;
/** From ahead, from port and from above. */
const FIRST_LOOK = new Vector3(0.6, 0.7, 0.42).normalize();

const vector = ({ xM, yM, zM }: Position) => new Vector3(xM, yM, zM);

interface Made {
  scene: Scene;
  pick: Mesh[];
  free(): void;
}

const linePaint = (kind: LineKind, scheme: Scheme): string =>
  ({ idle: scheme.idle, vacuum: scheme.vacuum, pressure: scheme.pressure, return: scheme.back })[kind];

function bodyPaint({ is }: Body, scheme: Scheme): { color: string; opacity: number } {
  switch (is) {
    case "shell":
      return { color: scheme.idle, opacity: 0.1 };
    case "frame":
      return { color: scheme.idle, opacity: 0.18 };
    case "wheel":
      return { color: scheme.idle, opacity: 0.3 };
    case "tank":
      return { color: scheme.raised, opacity: 0.28 };
    case "board":
      return { color: scheme.idle, opacity: 0.35 };
    case "part":
    case "consumer":
      return { color: scheme.soft, opacity: 1 };
  }
}

/** A hose as a tube along straight stretches, and a ring where each clip holds it. */
function hoseGeometries({
  run,
  points,
  clips,
}: LaidRun): { tube: BufferGeometry; rings: BufferGeometry[] } | null {
  const radius = Math.max(THINNEST_M, run.product.outerDiameterM / 2);
  const path = new CurvePath<Vector3>();
  points.slice(1).forEach((point, i) => {
    const [a, b] = [vector(points[i] as Position), vector(point)];
    if (a.distanceTo(b) > 1e-4) path.add(new LineCurve3(a, b));
  });
  if (path.curves.length === 0) return null;
  const rings = clips.map((clip) => {
    const ring = new TorusGeometry(radius * 1.5, radius * 0.5, 6, 12);
    ring.translate(clip.xM, clip.yM, clip.zM);
    return ring;
  });
  return { tube: new TubeGeometry(path, path.curves.length * 12, radius, 8), rings };
}

function made(
  { bodies }: VehicleScene,
  drawn: readonly LaidRun[],
  kinds: ReadonlyMap<Id, LineKind>,
  selectedId: Id | null,
  scheme: Scheme,
): Made {
  const scene = new Scene();
  scene.background = new Color(scheme.ground);
  const all = new Group();
  const [geometries, materials, pick]: [BufferGeometry[], Material[], Mesh[]] = [[], [], []];
  const own = <G extends BufferGeometry>(geometry: G): G => {
    geometries.push(geometry);
    return geometry;
  };
  const paint = <M extends Material>(material: M): M => {
    materials.push(material);
    return material;
  };
  for (const body of bodies) {
    const isChosen = body.id !== undefined && body.id === selectedId;
    const geometry = own(geometryOf(body.faces));
    const { color, opacity } = bodyPaint(body, scheme);
    const mesh = new Mesh(
      geometry,
      paint(
        new MeshLambertMaterial({
          color: isChosen ? scheme.act : color,
          transparent: opacity < 1,
          opacity: isChosen ? Math.max(0.5, opacity) : opacity,
          depthWrite: opacity === 1,
          side: DoubleSide,
        }),
      ),
    );
    mesh.userData.id = body.id;
    if (body.id !== undefined) pick.push(mesh);
    const edge = body.is === "shell" || body.is === "frame" || body.is === "wheel" ? scheme.idle : scheme.ink;
    const edges = new LineSegments(
      own(new EdgesGeometry(geometry, 28)),
      paint(new LineBasicMaterial({ color: isChosen ? scheme.act : edge })),
    );
    all.add(mesh, edges);
    if (body.surfaceM !== undefined)
      all.add(
        new Mesh(
          geometry,
          paint(
            new MeshLambertMaterial({
              color: scheme.atRest,
              side: DoubleSide,
              clippingPlanes: [new Plane(new Vector3(0, 0, -1), body.surfaceM)],
            }),
          ),
        ),
      );
  }
  for (const laid of drawn) {
    const hose = hoseGeometries(laid);
    if (!hose) continue;
    const isChosen = laid.run.id === selectedId;
    const color = isChosen ? scheme.ink : linePaint(kinds.get(laid.run.id) ?? "idle", scheme);
    const mesh = new Mesh(own(hose.tube), paint(new MeshLambertMaterial({ color })));
    mesh.userData.id = laid.run.id;
    pick.push(mesh);
    const clip = paint(new MeshLambertMaterial({ color: scheme.ink }));
    all.add(mesh, ...hose.rings.map((ring) => new Mesh(own(ring), clip)));
  }
  scene.add(all, new AmbientLight(0xffffff, 2.2));
  const lamp = new DirectionalLight(0xffffff, 1.2);
  lamp.position.set(1, 2, 3);
  scene.add(lamp);
  return {
    scene,
    pick,
    free: () => {
      for (const one of geometries) one.dispose();
      for (const one of materials) one.dispose();
    },
  };
}

export default function Turned({
  scene,
  drawn,
  kinds,
}: {
  scene: VehicleScene;
  drawn: readonly LaidRun[];
  kinds: ReadonlyMap<Id, LineKind>;
}) {
  const { selectedId, select } = useJob();
  const canvas = useRef<HTMLCanvasElement>(null);
  const [canDraw] = useState(() => document.createElement("canvas").getContext("webgl2") !== null);
  const theme = currentTheme();
  const model = useMemo(
    () => made(scene, drawn, kinds, selectedId, theme === "night" ? night : day),
    [scene, drawn, kinds, selectedId, theme],
  );
  useEffect(() => () => model.free(), [model]);
  const latest = useRef(model);
  const view = useRef<{ camera: PerspectiveCamera; controls: OrbitControls; draw: () => void } | null>(null);
  const reach = useMemo(() => {
    const box = new Box3().setFromPoints(cornersOf(scene.bodies).map(vector));
    const size = box.isEmpty() ? 1 : Math.max(0.5, box.min.distanceTo(box.max));
    return { middle: box.isEmpty() ? new Vector3() : box.getCenter(new Vector3()), size };
  }, [scene]);
  const first = useRef(reach);
  useEffect(() => {
    const element = canvas.current;
    const box = element?.parentElement;
    if (!element || !box || !canDraw) return;
    const renderer = new WebGLRenderer({ canvas: element, antialias: true, preserveDrawingBuffer: true });
    renderer.localClippingEnabled = true;
    const { middle, size } = first.current;
    const camera = new PerspectiveCamera(FIELD_DEG, 1, 0.02, 400);
    camera.up.set(0, 0, 1);
    const { width, height } = box.getBoundingClientRect();
    // The ball round everything fills the narrower way.
    const half = Math.atan(Math.tan((FIELD_DEG / 2) * DEGREE_RAD) * Math.min(1, width / Math.max(1, height)));
    camera.position.copy(middle).addScaledVector(FIRST_LOOK, (0.44 * size) / Math.sin(half));
    const controls = new OrbitControls(camera, element);
    // A finger goes up and down the page; across it turns the vehicle, two tilt and pull it nearer.
    element.style.touchAction = "pan-y";
    controls.target.copy(middle);
    controls.minDistance = 0.15 * size;
    controls.maxDistance = 6 * size;
    const draw = () => renderer.render(latest.current.scene, camera);
    controls.addEventListener("change", draw);
    const fit = () => {
      const { width, height } = box.getBoundingClientRect();
      if (width < 1 || height < 1) return;
      renderer.setPixelRatio(Math.min(2, window.devicePixelRatio));
      renderer.setSize(width, height, false);
      camera.aspect = width / height;
      camera.updateProjectionMatrix();
      controls.update();
      draw();
    };
    const observer = new ResizeObserver(fit);
    observer.observe(box);
    view.current = { camera, controls, draw };
    return () => {
      observer.disconnect();
      controls.dispose();
      renderer.dispose();
      view.current = null;
    };
  }, [canDraw]);
  useEffect(() => {
    latest.current = model;
    const { size, middle } = first.current;
    // What has grown or shrunk by much is looked at from as far as it asks for, and from the same side.
    if (view.current && Math.abs(reach.size / size - 1) > RESIZED) {
      const { camera, controls } = view.current;
      const from = camera.position
        .clone()
        .sub(controls.target)
        .multiplyScalar(reach.size / size);
      controls.target.add(reach.middle.clone().sub(middle));
      controls.minDistance = 0.15 * reach.size;
      controls.maxDistance = 6 * reach.size;
      camera.position.copy(controls.target).add(from);
      controls.update();
      first.current = reach;
    }
    view.current?.draw();
  }, [model, reach]);
  const onKey = (event: KeyboardEvent) => {
    const held = view.current;
    if (!held) return;
    const { camera, controls, draw } = held;
    const from = camera.position.clone().sub(controls.target);
    const side = new Vector3(0, 0, 1).cross(from).normalize();
    const tilt = (by: number) => {
      const next = from.clone().applyAxisAngle(side, by);
      const lift = next.clone().normalize().z;
      return Math.abs(lift) < 0.98 ? next : from;
    };
    const moves: Record<string, () => Vector3> = {
      ArrowLeft: () => from.applyAxisAngle(new Vector3(0, 0, 1), -KEY_TURN_RAD),
      ArrowRight: () => from.applyAxisAngle(new Vector3(0, 0, 1), KEY_TURN_RAD),
      ArrowUp: () => tilt(-KEY_TURN_RAD),
      ArrowDown: () => tilt(KEY_TURN_RAD),
      "+": () => from.multiplyScalar(1 / 1.15),
      "-": () => from.multiplyScalar(1.15),
    };
    const move = moves[event.key];
    if (!move) return;
    event.preventDefault();
    event.stopPropagation();
    camera.position.copy(controls.target).add(move());
    controls.update();
    draw();
  };
  const pressed = useRef<{ x: number; y: number } | null>(null);
  return (
    <Box>
      <canvas
        ref={canvas}
        role="application"
        tabIndex={0}
        aria-label="The vehicle in three dimensions. Arrow keys turn it, plus and minus come nearer and go back."
        onKeyDown={onKey}
        onPointerDown={(event) => {
          pressed.current = { x: event.clientX, y: event.clientY };
        }}
        onClick={(event) => {
          const held = view.current;
          const from = pressed.current;
          if (!held || !from || Math.hypot(event.clientX - from.x, event.clientY - from.y) > 4) return;
          const box = event.currentTarget.getBoundingClientRect();
          const ray = new Raycaster();
          ray.setFromCamera(
            new Vector2(
              ((event.clientX - box.left) / box.width) * 2 - 1,
              1 - ((event.clientY - box.top) / box.height) * 2,
            ),
            held.camera,
          );
          const id: unknown = ray.intersectObjects(model.pick)[0]?.object.userData.id;
          select(typeof id === "string" ? id : null);
        }}
      />
      <p>
        {canDraw ? "Turned by hand" : "This browser draws no three dimensions; the flat views show the same."}
      </p>
    </Box>
  );
}
