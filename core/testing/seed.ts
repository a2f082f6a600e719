// seed.ts — random drawings are the same in every run, so that a red run says something about the change. `SEED=7 npx vitest
// run` tries others; a case that fails is mended and kept among the `examples` of its test.
import fc from 'fast-check';

fc.configureGlobal({ seed: Number(process.env.SEED ?? 1) });
