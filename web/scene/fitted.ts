// fitted.ts — a camera for a picture that something fills.
import { PerspectiveCamera, Vector3 } from 'three';
import { type Box, middleOf, THREE_QUARTER } from './frame.ts';

const FIELD_OF_VIEW_DEG = 24;
/** Room around the solid, as a factor of its size. */
const MARGIN = 1.12;

/** From three quarters, as near as shows all corners of the box. @param aspect width by height of the picture */
export function fittedCamera({ min, max }: Box, aspect: number): PerspectiveCamera {
  const camera = new PerspectiveCamera(FIELD_OF_VIEW_DEG, aspect);
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
        const across = Math.max(Math.abs(corner.dot(right)) / (high * aspect), Math.abs(corner.dot(up)) / high);
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
