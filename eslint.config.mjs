import hooks from "eslint-plugin-react-hooks";
import tseslint from "typescript-eslint";
import walls from "./lint/walls.cjs";

export default tseslint.config(
  {
    ignores: [
      "build/",
      ".react-router/",
      "node_modules/",
      "test-results/",
      "playwright-report/",
      "tmp/",
      "lint/",
    ],
  },
  ...tseslint.configs.recommended,
  {
    rules: {
      "@typescript-eslint/no-unused-vars": ["error", { argsIgnorePattern: "^_", varsIgnorePattern: "^_" }],
    },
  },
  // The walls keep React out of these rooms.
  {
    ...hooks.configs.flat["recommended-latest"],
    files: ["app/**/*.{ts,tsx}"],
    ignores: ["app/core/**", "app/schemas/**", "app/messages/**", "app/**/*.test.ts"],
  },
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
  {
    files: ["app/**/*.{ts,tsx}"],
    plugins: { house: { rules: { walls: walls.rule } } },
    rules: { "house/walls": "error" },
  },
);
