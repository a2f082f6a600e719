// MaterialSentences.tsx — what the chosen layers are made of, all of them or side by side.
import { useState } from 'react';
import { useDropzone } from 'react-dropzone';
import {
  buildKind,
  isAlike,
  type Layer,
  LIBRARY,
  lightnessOfHex,
  type Material,
  PALETTES,
  SIDES_MADE,
  type WholeMaterial,
  wholeOf,
} from '../../../../../core/index.ts';
import { Choice } from '../../../../controls/Choice.tsx';
import { ColourField } from '../../../../controls/ColourField.tsx';
import { Folded } from '../../../../controls/Folded.tsx';
import { Note, Sentence } from '../../../../controls/Panel.tsx';
import { Share } from '../../../../controls/Share.tsx';
import { TextButton } from '../../../../controls/TextButton.tsx';
import { Value } from '../../../../controls/Value.tsx';
import { useBuild } from '../../../../store/build.ts';
import { type MadeSide, materialOf, materials, useMaterials } from '../../../../store/materials.ts';
import { useDocumentPart } from '../../../../store/project.ts';
import { type AtLeastOne, niceStep, readingOf } from '../several.tsx';
import { MaterialBalls } from './MaterialBalls.tsx';

const ALL = 'all';

export function MaterialSentences({ layers }: { layers: AtLeastOne<Layer> }) {
  const [first] = layers;
  // Of what is chosen next, all of it is meant again.
  const [wanted, setWanted] = useState<{ side: MadeSide; of: string }>({ side: null, of: first.id });
  const { sides } = buildKind(first.build.kind);
  const side = wanted.of === first.id && wanted.side && sides.includes(wanted.side) ? wanted.side : null;
  const of = readingOf(layers);
  const reading = <V extends string | number>(read: (material: WholeMaterial) => V) =>
    of((layer) => read(wholeOf(materialOf(layer, side))));
  const change = (part: Partial<Material>, gesture: string | null = null) =>
    materials.change(layers, side, part, gesture);
  const isOwn = layers.some(({ sideMaterials, material }) => {
    const own = side && sideMaterials?.[side];
    return own && !isAlike(own, material);
  });
  return (
    <>
      <Sentence>
        <Choice<string>
          label="Side"
          value={side ?? ALL}
          options={[
            [ALL, 'All of it'],
            ...SIDES_MADE.filter((each) => sides.includes(each)).map((each) => [each, `The ${each}`] as const),
          ]}
          onChange={(next) => setWanted({ side: SIDES_MADE.find((each) => each === next) ?? null, of: first.id })}
        />{' '}
        is{' '}
        <ColourField
          label="Colour"
          {...reading(({ colour }) => colour)}
          onChange={(colour, gesture) => change({ colour }, gesture)}
        />
        ,{' '}
        <Share
          label="Roughness"
          {...reading((m) => m.roughness)}
          onChange={(roughness, g) => change({ roughness }, g)}
        />{' '}
        rough,{' '}
        <Share
          label="Metalness"
          {...reading((m) => m.metalness)}
          onChange={(metalness, g) => change({ metalness }, g)}
        />{' '}
        metal.
      </Sentence>
      {side && isOwn && (
        <Note>
          The {side} is made of something else than the rest.{' '}
          <TextButton onClick={() => materials.asTheLayer(layers, side)}>As the rest</TextButton>
        </Note>
      )}
      {!side && layers.some(({ sideMaterials }) => sideMaterials) && (
        <Note>
          Own materials: {[...new Set(layers.flatMap((layer) => Object.keys(layer.sideMaterials ?? {})))].join(', ')}.{' '}
          <TextButton onClick={() => materials.asTheLayer(layers, null)}>All sides alike</TextButton>
        </Note>
      )}
      <PictureSentence layers={layers} side={side} />
      <Folded title="Materials to put on">
        <MaterialBalls
          title="Library"
          colour={first.material.colour}
          of={LIBRARY}
          onPick={(picked) => materials.put(layers, side, picked)}
        />
        <Kept layers={layers} side={side} />
      </Folded>
      <Folded title="Glass, lacquer, glow">
        <MoreSentences reading={reading} change={change} />
      </Folded>
      {layers.length > 1 && <Together layers={layers} />}
    </>
  );
}

/** What lies on a side, and where its UVs lay it. */
function PictureSentence({ layers, side }: { layers: AtLeastOne<Layer>; side: MadeSide }) {
  const failure = useMaterials((state) => state.failure);
  const { open, getInputProps } = useDropzone({
    noClick: true,
    noKeyboard: true,
    noDrag: true,
    multiple: false,
    onDrop: ([file]) => file && void materials.show(layers, side, file),
  });
  const names = [...new Set(layers.map((layer) => materialOf(layer, side).picture?.name))];
  const [name] = names;
  return (
    <>
      <Sentence>
        <input {...getInputProps({ 'aria-label': 'Picture to lay on it' })} />
        {names.length === 1 && !name ? (
          <>
            It shows no picture: <TextButton onClick={open}>lay one on it</TextButton>.
          </>
        ) : (
          <>
            It shows {names.length > 1 ? 'several pictures' : <span className="break-words">“{name}”</span>} where its
            UVs lay it, tinted by its colour: <TextButton onClick={open}>another</TextButton>,{' '}
            <TextButton onClick={() => materials.takeOff(layers, side)}>none</TextButton>.
          </>
        )}
      </Sentence>
      {failure && <Note tone="ember">{failure}</Note>}
    </>
  );
}

function Kept({ layers, side }: { layers: AtLeastOne<Layer>; side: MadeSide }) {
  const kept = useMaterials((state) => state.kept);
  const [name, setName] = useState('');
  const material = materialOf(layers[0], side);
  return (
    <>
      {kept.length > 0 && (
        <MaterialBalls
          title="Kept"
          colour={material.colour}
          of={kept}
          onPick={(picked) => materials.put(layers, side, picked)}
          onForget={({ name: gone }) => materials.forget(gone)}
        />
      )}
      <form
        className="mt-2 flex items-center gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (name.trim() === '') return;
          materials.keep(name.trim(), material);
          setName('');
        }}
      >
        <input
          aria-label="Name to keep this material by"
          placeholder="Keep this one as …"
          className="min-w-0 flex-1 border-rule border-b bg-transparent py-1"
          maxLength={60}
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
        <button type="submit" className="text-tide disabled:text-quiet" disabled={name.trim() === ''}>
          Keep
        </button>
      </form>
    </>
  );
}

interface MoreProps {
  reading: <V extends string | number>(read: (material: WholeMaterial) => V) => { value: V; isMixed: boolean };
  change: (part: Partial<Material>, gesture?: string | null) => void;
}

function MoreSentences({ reading, change }: MoreProps) {
  const unit = useDocumentPart((document) => document.unit);
  const isClear = reading((m) => m.transmission).value > 0;
  const distance = reading((m) => m.attenuationDistance ?? 0);
  return (
    <>
      <Sentence>
        It mirrors{' '}
        <Share label="Specular" {...reading((m) => m.specular)} onChange={(specular, g) => change({ specular }, g)} />{' '}
        of what its index of refraction{' '}
        <Value
          label="Index of refraction"
          {...reading((m) => m.ior)}
          step={0.01}
          min={1}
          max={3}
          onChange={(ior, g) => change({ ior }, g)}
        />{' '}
        gives, and is{' '}
        <Share label="Opacity" {...reading((m) => m.opacity)} onChange={(opacity, g) => change({ opacity }, g)} />{' '}
        opaque.
      </Sentence>
      <Sentence>
        <Share
          label="Transmission"
          {...reading((m) => m.transmission)}
          onChange={(transmission, g) => change({ transmission }, g)}
        />{' '}
        of the light goes through
        {isClear && (
          <>
            ,{' '}
            <Value
              label="Thickness"
              {...reading((m) => m.thickness)}
              unit={unit}
              step={niceStep(reading((m) => m.thickness).value || 1)}
              onChange={(thickness, g) => change({ thickness }, g)}
            />{' '}
            deep
            {reading((m) => m.thickness).value === 0 && ' (a thin sheet: clear from the front, a mirror at an angle)'}
            {distance.value > 0 ? (
              <>
                , and after{' '}
                <Value
                  label="Absorption distance"
                  {...distance}
                  unit={unit}
                  step={niceStep(distance.value)}
                  min={1e-6}
                  onChange={(attenuationDistance, g) => change({ attenuationDistance }, g)}
                />{' '}
                is{' '}
                <ColourField
                  label="Absorption colour"
                  {...reading((m) => m.attenuationColour)}
                  onChange={(attenuationColour, g) => change({ attenuationColour }, g)}
                />
              </>
            ) : (
              <>
                {' '}
                and stays white (
                <TextButton
                  onClick={() =>
                    change({
                      attenuationDistance: reading((m) => m.thickness).value || 1,
                      attenuationColour: '#9fd0c4',
                    })
                  }
                >
                  tint it inside
                </TextButton>
                )
              </>
            )}
          </>
        )}
        .
      </Sentence>
      <Sentence>
        A clear coat covers{' '}
        <Share label="Clear coat" {...reading((m) => m.coat)} onChange={(coat, g) => change({ coat }, g)} />,{' '}
        <Share
          label="Roughness of the coat"
          {...reading((m) => m.coatRoughness)}
          onChange={(coatRoughness, g) => change({ coatRoughness }, g)}
        />{' '}
        rough. Its sheen is{' '}
        <ColourField label="Sheen" {...reading((m) => m.sheen)} onChange={(sheen, g) => change({ sheen }, g)} />,{' '}
        <Share
          label="Roughness of the sheen"
          {...reading((m) => m.sheenRoughness)}
          onChange={(sheenRoughness, g) => change({ sheenRoughness }, g)}
        />{' '}
        rough.
      </Sentence>
      <Sentence>
        It glows <ColourField label="Glow" {...reading((m) => m.glow)} onChange={(glow, g) => change({ glow }, g)} />,{' '}
        <Value
          label="Strength of the glow"
          {...reading((m) => m.glowStrength)}
          step={0.1}
          max={1000}
          onChange={(glowStrength, g) => change({ glowStrength }, g)}
        />{' '}
        times as bright as white.
      </Sentence>
    </>
  );
}

/** What is done to the colours and the shine of several at once. */
function Together({ layers }: { layers: AtLeastOne<Layer> }) {
  const view = useBuild((state) => state.view);
  const own = (layer: Layer) => {
    const shapes = view?.layers.find(({ id }) => id === layer.id)?.shapes ?? [];
    return shapes.find(({ id }) => !layer.skipped.includes(id))?.colour;
  };
  return (
    <Folded title="Colours of all of them">
      <p className="my-2 flex flex-wrap gap-x-4 gap-y-2">
        {PALETTES.map(({ id, name, colours }) => (
          <button
            key={id}
            type="button"
            className="flex items-center gap-1.5 rounded-edge px-1 py-0.5 hover:bg-wash"
            onClick={() =>
              materials.swap(
                layers,
                colours,
                layers.map(({ material }) => lightnessOfHex(material.colour)),
              )
            }
          >
            <span aria-hidden className="flex border border-rule">
              {colours.map((colour) => (
                <span key={colour} className="size-3.5" style={{ background: colour }} />
              ))}
            </span>
            {name}
          </button>
        ))}
      </p>
      <p className="my-2 flex flex-wrap gap-x-4">
        <TextButton onClick={() => materials.fromSource(layers, own)}>As in the source</TextButton>
        <TextButton onClick={() => materials.withoutShine(layers)}>No shine</TextButton>
      </p>
    </Folded>
  );
}
