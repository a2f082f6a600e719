declare module 'gltf-validator' {
  export interface Report {
    readonly issues: {
      readonly numErrors: number;
      readonly numWarnings: number;
      readonly messages: readonly unknown[];
    };
    readonly info: { readonly totalVertexCount: number; readonly totalTriangleCount: number };
  }
  export function validateBytes(bytes: Uint8Array): Promise<Report>;
}
