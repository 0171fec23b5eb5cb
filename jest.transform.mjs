/**
 * The transform of the unit tests: swc, and the globals of hot loops taken once a module.
 * In a test's own realm each look at a global asks the realm first: a sum full of `Math.abs`
 * took several times as long as it does in the application.
 */
import swcJest from "@swc/jest";

const taken = "const {Math,Number,Array,Object,Map,Set,Infinity,NaN,Float64Array,Int32Array}=globalThis;";

export default {
  createTransformer(options) {
    const swc = swcJest.createTransformer(options);
    return {
      ...swc,
      process(...given) {
        const made = swc.process(...given);
        return { ...made, code: `${taken}${made.code}` };
      },
    };
  },
};
