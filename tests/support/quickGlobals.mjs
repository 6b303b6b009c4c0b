import swc from '@swc/jest';

// A test runner gives every test file a context of its own, and there each word such as Math is looked up by name through the context's
// outside, every time: arithmetic runs five times slower than it does in the product. Named once at a module's head they are ordinary
// variables. Clocks and timers are left alone, for tests replace them.
const NAMES = [
  'Math',
  'Number',
  'Object',
  'Array',
  'Map',
  'Set',
  'String',
  'JSON',
  'Float32Array',
  'Float64Array',
  'Int8Array',
  'Uint8Array',
  'Int16Array',
  'Uint16Array',
  'Int32Array',
  'Uint32Array',
  'DataView',
  'ArrayBuffer',
  'BigInt',
];

export default {
  createTransformer(options) {
    const inner = swc.createTransformer(options);
    const led = (result) => ({
      ...result,
      code: `const { ${NAMES.join(', ')}, NaN, Infinity } = globalThis;${result.code}`,
    });
    return {
      ...inner,
      process: (source, file, transform) => led(inner.process(source, file, transform)),
      processAsync: async (source, file, transform) => led(await inner.processAsync(source, file, transform)),
    };
  },
};
