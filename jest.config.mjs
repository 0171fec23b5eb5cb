export default {
  testEnvironment: "node",
  roots: ["<rootDir>/app", "<rootDir>/cli"],
  testMatch: ["**/*.test.ts", "**/*.test.tsx"],
  moduleNameMapper: { "^~/(.*)$": "<rootDir>/app/$1" },
  transform: {
    "^.+\\.tsx?$": [
      "@swc/jest",
      {
        jsc: {
          parser: { syntax: "typescript", tsx: true },
          target: "es2022",
          transform: { react: { runtime: "automatic" } },
        },
        module: { type: "commonjs" },
      },
    ],
  },
};
