/**
 * The house's walls: what each room may import, by the resolved path, whatever the way the import is written in. What
 * is not on the list is shut. Core has rooms of its own; a room may always import from itself.
 */
const path = require("node:path");

/** Rooms of the application and what each may enter. */
const rooms = {
  core: [],
  // Which field asked for what is dispatched: known to those who ask and to those who refuse.
  asking: [],
  schemas: ["core"],
  store: ["schemas", "core"],
  workers: ["schemas", "core"],
  messages: ["schemas", "core"],
  ui: ["core/units", "asking"],
  state: ["asking", "messages", "store", "workers", "schemas", "core"],
  fields: ["ui", "state", "messages", "schemas", "core"],
  keel: ["ui", "state", "messages", "core"],
  plumbing: ["ui", "state", "messages", "core"],
  // Geometry for what is drawn in three dimensions.
  space: ["core"],
  routes: ["fields", "keel", "plumbing", "space", "ui", "state", "messages", "store", "workers", "schemas", "core"],
};

const laws = ["units", "fuel", "laws"];
const kinds = [...laws, "ends", "kinds"];
const plan = [...kinds, "plan"];
const built = [...plan, "book", "tanks", "hose", "circuits"];
const solved = [...built, "solver", "network", "hydraulics"];
/** Rooms of the core, the lowest first. */
const coreRooms = {
  units: [],
  random: [],
  laws: ["units"],
  fuel: ["units", "laws"],
  kinds: laws,
  plan: kinds,
  book: plan,
  tanks: [...plan, "book", "fit"],
  ends: ["units"],
  cuts: [],
  fit: ["units", "random"],
  joints: [...plan, "box"],
  box: ["units", "ends", "cuts", ...kinds, "plan"],
  boards: [...plan, "fit"],
  hose: plan,
  circuits: plan,
  solver: laws,
  network: [...plan, "tanks", "solver", "random"],
  hydraulics: [...plan, "tanks", "solver", "network", "random"],
  check: [...plan, "tanks"],
  edit: [...plan, "tanks", "check", "boards"],
  air: [...solved, "random"],
  care: [...solved, "running", "random"],
  parts: [...built, "joints", "box", "fit", "boards", "circuits"],
  running: solved,
  manifold: [...solved, "edit"],
  order: [...solved, "edit", "boards", "joints", "parts", "random"],
  service: [...solved, "boards"],
  drawing: [...solved, "edit"],
  vehicle: [...built, "boards", "parts"],
  findings: [...solved, "air", "running", "care", "joints", "boards", "service", "parts"],
  work: [...solved, "drawing", "edit", "air", "boards", "care", "findings", "parts", "order", "service"],
  export: solved,
};

/** Packages that the core may use: they know nothing of a browser. */
const corePackages = ["immer", "papaparse", "@noble/hashes", "jstat"];

/** The room and, in the core, the inner room of a file under `app/`; null for what stands outside or at the door. */
function placeOf(file, root) {
  const [app, room, inner] = path.relative(root, file).split(path.sep);
  if (app !== "app" || !(room in rooms)) return null;
  return { room, inner: room === "core" ? inner : undefined };
}

/** Where an import leads: a path in the application, or the name of a package. */
function target(source, file, root) {
  if (source.startsWith("~/")) return { path: path.join(root, "app", source.slice(2)) };
  if (source.startsWith(".")) return { path: path.resolve(path.dirname(file), source) };
  return { name: source };
}

/** Why an import is not allowed, or null. */
function fault(source, file, root) {
  const from = placeOf(file, root);
  if (!from) return null;
  const to = target(source, file, root);
  if (to.name !== undefined) {
    const isOpen = from.room !== "core" || corePackages.some((name) => to.name === name || to.name.startsWith(`${name}/`));
    return isOpen ? null : `core is numbers only: it must not import ${to.name}`;
  }
  const into = placeOf(to.path, root);
  if (!into) {
    const isAsset = !/^app$|^app\//.test(path.relative(root, to.path));
    return from.room === "core" && isAsset ? `core must not import from outside the application` : null;
  }
  if (into.room !== from.room) {
    const isOpen = rooms[from.room].some((name) => name === into.room || name === `${into.room}/${into.inner}`);
    return isOpen ? null : `${from.room} must not import ${into.room}: arrows point one way`;
  }
  if (from.room !== "core" || from.inner === into.inner) return null;
  const list = coreRooms[from.inner];
  if (!list) return `core/${from.inner} is no room that the walls know: add it to lint/walls.cjs`;
  return list.includes(into.inner) ? null : `core/${from.inner} must not import core/${into.inner}: arrows point one way`;
}

const isTest = (file) => /\.(test|fixture)\.tsx?$/.test(file);

module.exports = {
  fault,
  rule: {
    meta: { type: "problem", schema: [] },
    create(context) {
      const file = context.filename;
      if (isTest(file)) return {};
      const check = (node) => {
        if (typeof node?.source?.value !== "string") return;
        const message = fault(node.source.value, file, context.cwd);
        if (message) context.report({ node: node.source, message });
      };
      return {
        ImportDeclaration: check,
        ExportNamedDeclaration: check,
        ExportAllDeclaration: check,
        ImportExpression: check,
        TSImportType: (node) => check({ source: node.argument?.literal ?? node.source }),
      };
    },
  },
};
