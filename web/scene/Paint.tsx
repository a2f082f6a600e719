// Paint.tsx — a material as the draft draws it.
import { Color } from 'three';
import { MATERIAL_DEFAULTS, type Material, type WholeMaterial, wholeOf } from '../../core/index.ts';
import { useSidePicture } from '../store/picture-views.ts';
import { useBitmapTexture } from './bitmap-texture.ts';
import { checkerFor } from './checker.ts';
import { useSurroundings } from './surroundings.ts';

interface PaintProps {
  /** Where in the mesh it goes. */
  attach: string;
  material: Material;
  /** Whether the mesh knows where it lies on pictures. */
  isMapped: boolean;
  /** Side of a square of the checker that is shown in place of its colour; null for none. */
  square: number | null;
  isChosen: boolean;
}

export function Paint({ attach, material, isMapped, square: wanted, isChosen }: PaintProps) {
  const whole = wholeOf(material);
  const surroundings = useSurroundings();
  const square = isMapped ? wanted : null;
  const picture = useBitmapTexture(useSidePicture(isMapped ? material.picture : undefined));
  const map = square === null ? picture : checkerFor(square);
  const glow = new Color(whole.glow).multiplyScalar(whole.glowStrength);
  const common = {
    attach,
    color: square === null ? whole.colour : '#ffffff',
    map,
    roughness: whole.roughness,
    metalness: whole.metalness,
    transparent: whole.opacity < 1,
    opacity: whole.opacity,
    emissive: isChosen ? glow.clone().add(CHOSEN) : glow,
    // A picture of the project shows nobody's choice.
    userData: { glow },
    envMap: surroundings,
    envMapIntensity: mirroring(whole),
    // A dark front across which light falls off by a few steps would show them as bands.
    dithering: true,
    polygonOffset: true,
    polygonOffsetFactor: 1,
    polygonOffsetUnits: 1,
  };
  const key = `${attach} ${map !== null} ${surroundings !== null}`;
  if (!isPhysical(whole)) return <meshStandardMaterial key={key} {...common} />;
  return (
    <meshPhysicalMaterial
      key={`${key} physical`}
      {...common}
      specularIntensity={whole.specular}
      ior={whole.ior}
      transmission={whole.transmission}
      thickness={whole.thickness}
      attenuationColor={whole.attenuationColour}
      attenuationDistance={whole.attenuationDistance ?? Infinity}
      clearcoat={whole.coat}
      clearcoatRoughness={whole.coatRoughness}
      sheen={whole.sheen === MATERIAL_DEFAULTS.sheen ? 0 : 1}
      sheenColor={whole.sheen}
      sheenRoughness={whole.sheenRoughness}
    />
  );
}

const CHOSEN = new Color('#1d5f5a').multiplyScalar(0.14);
/** What only mirrors has nothing else to be seen by; of all others it shows where a dark front bends, and lights little. */
const mirroring = ({ metalness, transmission }: WholeMaterial): number =>
  LEAST_MIRRORED + (1 - LEAST_MIRRORED) * Math.max(metalness, transmission);

const LEAST_MIRRORED = 0.2;

/** Whether it needs more than colour, roughness and metalness. */
const isPhysical = ({ specular, ior, transmission, coat, sheen }: WholeMaterial): boolean =>
  specular !== MATERIAL_DEFAULTS.specular ||
  ior !== MATERIAL_DEFAULTS.ior ||
  transmission > 0 ||
  coat > 0 ||
  sheen !== MATERIAL_DEFAULTS.sheen;
