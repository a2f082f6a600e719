// validator.ts — the validator of GLB files by those who keep the format, which brings no types.
import { createRequire } from 'node:module';
import { resolve } from 'node:path';

export interface ValidatorReport {
  readonly issues: {
    readonly numErrors: number;
    readonly numWarnings: number;
    readonly messages: readonly unknown[];
  };
  readonly info: { readonly totalVertexCount: number; readonly totalTriangleCount: number };
}

const validator = createRequire(resolve('bench/sets/package.json'))('gltf-validator');

export const validateBytes: (bytes: Uint8Array) => Promise<ValidatorReport> = validator.validateBytes;
