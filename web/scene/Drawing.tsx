// Drawing.tsx — how finely this machine can draw. A graphics card smooths edges as it draws, at next to no cost. Where the
// processor draws instead, that takes half of every frame. There the canvas has twice the pixels of its place on the page,
// which smooths what stands still as well; while something moves, a quarter of them is drawn and shown as large.
import { useFrame, useThree } from '@react-three/fiber';
import { useEffect } from 'react';

interface Fineness {
  readonly antialias: boolean;
  /** Pixels of the canvas for one on the page: just that, or the least and the most. */
  readonly dpr: number | [least: number, most: number];
  /** Share of its width and height that is drawn on while something moves. */
  readonly moving: number;
  /** How long nothing moves before it is drawn finely: longer than a frame takes, or drags would be drawn finely too. */
  readonly stillAfterMs: number;
  /** Pixels along a side of the picture that shadows are looked up in. */
  readonly shadowPixels: number;
}

/** Found once: asking takes as long as several frames. */
let here: Fineness | null = null;

export function finenessHere(): Fineness {
  here ??= isDrawnInSoftware()
    ? { antialias: false, dpr: 2, moving: 0.5, stillAfterMs: 500, shadowPixels: 1024 }
    : { antialias: true, dpr: [1, 2], moving: 1, stillAfterMs: 300, shadowPixels: 2048 };
  return here;
}

/**
 * Draws the scene on the share of the canvas that the moment allows. The canvas keeps its size: a new one would have to wait for
 * all that is being drawn. It must be scaled from its lower left corner, and pointers must not be measured on it.
 */
export function Drawing() {
  const shadows = useThree(({ gl }) => gl.shadowMap);
  // What casts shadows asks for new ones; turning the view changes none.
  useEffect(() => {
    shadows.autoUpdate = false;
  }, [shadows]);
  useFrame(({ gl, scene, camera, size, performance: { current: share } }) => {
    gl.setViewport(0, 0, size.width * share, size.height * share);
    gl.setScissor(0, 0, size.width * share, size.height * share);
    gl.setScissorTest(true);
    gl.domElement.style.transform = share < 1 ? `scale(${1 / share})` : '';
    gl.render(scene, camera);
  }, 1);
  return null;
}

/** Names under which drawing without a graphics card is known; browsers need not say so otherwise. */
const SOFTWARE = /swiftshader|llvmpipe|softpipe|basic render/i;

function isDrawnInSoftware(): boolean {
  const probe = document.createElement('canvas').getContext('webgl2');
  const names = probe?.getExtension('WEBGL_debug_renderer_info');
  if (!probe || !names) return false;
  const renderer = String(probe.getParameter(names.UNMASKED_RENDERER_WEBGL));
  probe.getExtension('WEBGL_lose_context')?.loseContext();
  return SOFTWARE.test(renderer);
}
