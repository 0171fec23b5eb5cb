/** The state of a browser after its first visit, which every test begins with. */
export const SEEDED = "test-results/seeded.json";
/** The word of the shelf of the server that the tests start. */
export const SHELF_WORD = "TEST-WXYZ";
