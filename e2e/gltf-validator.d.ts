declare module 'gltf-validator' {
  /** Validates a glTF asset; severity 0 is an error. */
  export function validateBytes(data: Uint8Array): Promise<{
    info: { totalTriangleCount: number; totalVertexCount: number };
    issues: { numErrors: number; messages: { code: string; severity: number; pointer?: string }[] };
  }>;
}
