export default {
  testEnvironment: "node",
  // A shared machine may stall for seconds; no test is meant to take one.
  testTimeout: 30_000,
  roots: ["<rootDir>/app", "<rootDir>/cli"],
  testMatch: ["**/*.test.ts", "**/*.test.tsx"],
  moduleNameMapper: {
    "^~/(.*)$": "<rootDir>/app/$1",
    // Its own files are modules alone; this one holds the same for Node.
    "^@zip.js/zip.js/lib/zip-core-native.js$": "<rootDir>/node_modules/@zip.js/zip.js/index-native.cjs",
    "^three$": "<rootDir>/node_modules/three/build/three.module.js",
  },
  transformIgnorePatterns: ["/node_modules/(?!three/build/)"],
  transform: {
    // This one comes as modules alone.
    "/three/build/.+\\.js$": ["@swc/jest", { module: { type: "commonjs" }, jsc: { target: "es2022" } }],
    "^.+\\.tsx?$": [
      "<rootDir>/jest.transform.mjs",
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
