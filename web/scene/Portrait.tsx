// Portrait.tsx — the picture of the project for the list: taken of what is shown once all is saved and nothing moves. It is drawn
// onto the canvas of the view and copied from it just before the view itself is drawn, so that nobody sees it there.
import { useFrame, useThree } from '@react-three/fiber';
import { useEffect, useRef } from 'react';
import { Color, type Material, Mesh, MeshStandardMaterial, type Scene } from 'three';
import { api } from '../requests/api.ts';
import { useBuild } from '../store/build.ts';
import { useProject } from '../store/project.ts';
import { useScreen } from '../store/screen.ts';
import { fittedCamera } from './fitted.ts';
import type { Box } from './frame.ts';

/** In pixels. */
const [WIDTH, HEIGHT] = [480, 270];
/** How long nothing must have changed. */
const QUIET_MS = 1500;

/** Revisions that were taken or need not be, by project. */
const taken = new Map<string, number>();

export function Portrait({ box }: { box: Box | null }) {
  const { id, revision, save, history } = useProject();
  const of = useBuild((state) => state.of);
  const isOtherwise = useScreen(({ hidden, place, plaster }) => hidden.length > 0 || place !== null || plaster);
  const invalidate = useThree((state) => state.invalidate);
  const isWanted = useRef(false);
  const isReady = save === 'saved' && of === history?.present && box !== null && !isOtherwise;
  useEffect(() => {
    if (!isReady || !id || taken.get(id) === revision) return;
    const timer = setTimeout(() => {
      isWanted.current = true;
      invalidate();
    }, QUIET_MS);
    return () => {
      clearTimeout(timer);
      isWanted.current = false;
    };
  }, [isReady, id, revision, invalidate]);
  useFrame(({ gl, scene }) => {
    if (!isWanted.current || !box || !id) return;
    isWanted.current = false;
    taken.set(id, revision);
    const { width, height } = gl.domElement;
    // In pixels of the canvas: views are given in those of the page.
    const ratio = gl.getPixelRatio();
    if (width < WIDTH || height < HEIGHT) return;
    const camera = fittedCamera(box, WIDTH / HEIGHT);
    gl.setViewport(0, 0, WIDTH / ratio, HEIGHT / ratio);
    gl.setScissor(0, 0, WIDTH / ratio, HEIGHT / ratio);
    gl.setScissorTest(true);
    const restore = plain(scene);
    gl.render(scene, camera);
    restore();
    const picture = document.createElement('canvas');
    [picture.width, picture.height] = [WIDTH, HEIGHT];
    picture.getContext('2d')!.drawImage(gl.domElement, 0, height - HEIGHT, WIDTH, HEIGHT, 0, 0, WIDTH, HEIGHT);
    picture.toBlob((blob) => {
      // A list without this picture is no reason to say anything.
      if (blob) api.savePicture(id, revision, blob).catch(() => undefined);
    }, 'image/png');
  }, 0.5);
  return null;
}

/** Takes away what says that layers are chosen. @returns brings it back */
function plain(scene: Scene): () => void {
  const lit: [MeshStandardMaterial, Color][] = [];
  scene.traverse((object) => {
    const materials: readonly Material[] = object instanceof Mesh ? [object.material].flat() : [];
    for (const material of materials) {
      if (!(material instanceof MeshStandardMaterial)) continue;
      lit.push([material, material.emissive]);
      material.emissive = material.userData.glow ?? new Color(0);
    }
  });
  return () => {
    for (const [material, emissive] of lit) material.emissive = emissive;
  };
}
