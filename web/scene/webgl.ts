// webgl.ts — whether this browser draws solids at all.
let known: boolean | null = null;

export function hasWebGl(): boolean {
  if (known === null) {
    const context = document.createElement('canvas').getContext('webgl2');
    known = context !== null;
    // Browsers keep few contexts; this one is needed no more.
    context?.getExtension('WEBGL_lose_context')?.loseContext();
  }
  return known;
}
