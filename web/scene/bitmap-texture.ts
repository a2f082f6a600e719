// bitmap-texture.ts — pictures from the worker as the graphics card has them.
import { useThree } from '@react-three/fiber';
import { useEffect, useMemo } from 'react';
import { RepeatWrapping, SRGBColorSpace, Texture } from 'three';

/** Null until the picture is there. */
export function useBitmapTexture(bitmap: ImageBitmap | null): Texture | null {
  const invalidate = useThree((state) => state.invalidate);
  const texture = useMemo(() => (bitmap ? textureOf(bitmap) : null), [bitmap]);
  useEffect(() => {
    invalidate();
    return () => texture?.dispose();
  }, [texture, invalidate]);
  return texture;
}

function textureOf(bitmap: ImageBitmap): Texture {
  const texture = new Texture(bitmap);
  texture.wrapS = RepeatWrapping;
  texture.wrapT = RepeatWrapping;
  // Its first row is at the top, and bitmaps cannot be turned over while they are handed to the graphics card.
  texture.flipY = false;
  texture.repeat.set(1, -1);
  texture.offset.set(0, 1);
  texture.colorSpace = SRGBColorSpace;
  texture.anisotropy = 8;
  texture.needsUpdate = true;
  return texture;
}
