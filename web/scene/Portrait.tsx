// Portrait.tsx — the picture of the project for the list: taken of what is shown once all is saved and nothing moves. It is drawn
// onto the canvas of the view and copied from it just before the view itself is drawn, so that nobody sees it there.
import { useFrame, useThree } from '@react-three/fiber';
import { useEffect, useRef } from 'react';
import { Color, type Material, Mesh, MeshStandardMaterial, PerspectiveCamera, type Scene, Vector3 } from 'three';
import { api } from '../requests/api.ts';
import { useBuild } from '../store/build.ts';
import { useProject } from '../store/project.ts';
import { useScreen } from '../store/screen.ts';
import { type Box, middleOf, THREE_QUARTER } from './frame.ts';

/** In pixels. */
const [WIDTH, HEIGHT] = [480, 270];
const FIELD_OF_VIEW_DEG = 24;
/** Room around the solid, as a factor of its size. */
const MARGIN = 1.12;
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
    const camera = cameraFor(box);
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

/** As near as shows all corners of the box. */
function cameraFor({ min, max }: Box): PerspectiveCamera {
  const camera = new PerspectiveCamera(FIELD_OF_VIEW_DEG, WIDTH / HEIGHT);
  const middle = new Vector3(...middleOf({ min, max }));
  camera.position.copy(middle).add(new Vector3(...THREE_QUARTER));
  camera.lookAt(middle);
  camera.updateMatrixWorld();
  const [right, up, towards] = [new Vector3(), new Vector3(), new Vector3()];
  camera.matrixWorld.extractBasis(right, up, towards);
  const high = Math.tan((FIELD_OF_VIEW_DEG * Math.PI) / 360) / MARGIN;
  const distances = [min[0], max[0]].flatMap((x) =>
    [min[1], max[1]].flatMap((y) =>
      [min[2], max[2]].map((z) => {
        const corner = new Vector3(x, y, z).sub(middle);
        const across = Math.max(
          Math.abs(corner.dot(right)) / ((high * WIDTH) / HEIGHT),
          Math.abs(corner.dot(up)) / high,
        );
        return corner.dot(towards) + across;
      }),
    ),
  );
  const distance = Math.max(...distances);
  camera.position.copy(middle).addScaledVector(towards, distance);
  camera.near = distance / 100;
  camera.far = distance * 10;
  camera.updateProjectionMatrix();
  camera.updateMatrixWorld();
  return camera;
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
