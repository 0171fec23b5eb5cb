/** The state of a browser after its first visit, which every test begins with. */
export const SEEDED = "test-results/seeded.json";
