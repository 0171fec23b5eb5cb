import hooks from "eslint-plugin-react-hooks";
import tseslint from "typescript-eslint";

/** What each room may not import: arrows point routes -> keel, ui, state, messages -> store, workers -> schemas -> core. */
const rooms = {
  core: ["schemas", "store", "workers", "state", "ui", "keel", "messages", "routes"],
  schemas: ["store", "workers", "state", "ui", "keel", "messages", "routes"],
  store: ["workers", "state", "ui", "keel", "messages", "routes"],
  workers: ["store", "state", "ui", "keel", "messages", "routes"],
  messages: ["store", "workers", "state", "ui", "keel", "routes"],
  state: ["ui", "keel", "routes"],
  ui: ["core/!(units)", "schemas", "store", "workers", "state", "keel", "messages", "routes"],
  keel: ["store", "workers", "routes"],
};

const walls = Object.entries(rooms).map(([room, closed]) => ({
  files: [`app/${room}/**/*.{ts,tsx}`],
  ignores: ["**/*.test.ts", "**/*.test.tsx"],
  rules: {
    "no-restricted-imports": [
      "error",
      {
        patterns: [
          {
            group: closed.flatMap((name) => [`~/${name}`, `~/${name}/**`]),
            message: `app/${room} must not import this: arrows point one way (docs/architecture.md)`,
          },
          ...(room === "core"
            ? [
                {
                  group: ["react*", "styled-components", "dexie*", "node:*", "zod"],
                  message: "core is numbers only",
                },
              ]
            : []),
        ],
      },
    ],
  },
}));

export default tseslint.config(
  { ignores: ["build/", ".react-router/", "node_modules/", "test-results/", "playwright-report/", "tmp/"] },
  ...tseslint.configs.recommended,
  { ...hooks.configs.flat["recommended-latest"], files: ["app/**/*.{ts,tsx}"] },
  // No compiler is in use that would memoise by itself.
  { files: ["app/**/*.{ts,tsx}"], rules: { "react-hooks/preserve-manual-memoization": "off" } },
  {
    files: ["app/**/*.{ts,tsx}", "cli/**/*.ts"],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      "@typescript-eslint/no-floating-promises": "error",
      "@typescript-eslint/switch-exhaustiveness-check": [
        "error",
        { considerDefaultExhaustiveForUnions: true },
      ],
      "@typescript-eslint/no-unused-vars": ["error", { argsIgnorePattern: "^_", varsIgnorePattern: "^_" }],
    },
  },
  ...walls,
);
