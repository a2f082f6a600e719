// surroundings.ts — what is all round in the draft, for things to mirror: a room with soft windows, made once for each view.
import { useThree } from '@react-three/fiber';
import { PMREMGenerator, type Texture, type WebGLRenderer } from 'three';
import { RoomEnvironment } from 'three/addons/environments/RoomEnvironment.js';

const made = new WeakMap<WebGLRenderer, Texture>();

const BLUR = 0.04;

export function useSurroundings(): Texture {
  const gl = useThree((three) => three.gl);
  const known = made.get(gl);
  if (known) return known;
  const generator = new PMREMGenerator(gl);
  const room = new RoomEnvironment();
  const { texture } = generator.fromScene(room, BLUR);
  room.dispose();
  generator.dispose();
  made.set(gl, texture);
  return texture;
}
