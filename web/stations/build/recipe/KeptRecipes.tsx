// KeptRecipes.tsx — recipes by name: kept from a layer, put on others whole or in part, written to files and read from them.
import { FileDown, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { type Layer, RECIPE_PARTS } from '../../../../core/index.ts';
import { Folded } from '../../../controls/Folded.tsx';
import { IconButton } from '../../../controls/IconButton.tsx';
import { Note } from '../../../controls/Panel.tsx';
import { TextButton } from '../../../controls/TextButton.tsx';
import { Tick } from '../../../controls/Tick.tsx';
import { tip } from '../../../controls/Tips.tsx';
import { countOf } from '../../../format.ts';
import { type KeptRecipe, recipeFile, recipes, useRecipes } from '../../../store/recipes.ts';
import type { AtLeastOne } from './several.tsx';

export function KeptRecipes({ layers }: { layers: AtLeastOne<Layer> }) {
  return (
    <Folded title="Kept recipes">
      <Kept layers={layers} />
    </Folded>
  );
}

function Kept({ layers }: { layers: AtLeastOne<Layer> }) {
  const { kept, parts, failure } = useRecipes();
  const [name, setName] = useState('');
  const [layer] = layers;
  const wanted = name.trim() || layer.name;
  return (
    <>
      <form
        className="my-1 flex items-center gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          recipes.keep(wanted, layer);
          setName('');
        }}
      >
        <input
          aria-label="Name to keep the recipe by"
          placeholder={layer.name}
          value={name}
          maxLength={60}
          className="min-w-0 flex-1 border-tide border-b bg-wash px-1 text-tide placeholder:text-quiet focus:bg-sheet"
          onChange={(event) => setName(event.target.value)}
        />
        <button type="submit" className="rounded-edge border border-rule bg-sheet px-2 py-1 hover:border-tide">
          Keep this recipe
        </button>
      </form>
      {kept.length > 0 && (
        <>
          <fieldset className="my-2 flex flex-wrap gap-x-3 gap-y-1">
            <legend className="text-quiet">What is put on:</legend>
            {RECIPE_PARTS.map((part) => (
              <Tick key={part} label={part} isOn={parts.includes(part)} onChange={() => recipes.toggle(part)} />
            ))}
          </fieldset>
          <ul aria-label="Kept recipes">
            {kept.map((each) => (
              <Row key={each.name} kept={each} layers={layers} isAny={parts.length > 0} />
            ))}
          </ul>
        </>
      )}
      <label className="inline-block min-h-6 cursor-pointer py-0.5 text-tide underline-offset-2 focus-within:outline hover:underline">
        Read one from a file
        <input
          type="file"
          accept=".json,application/json"
          className="sr-only"
          onChange={(event) => {
            const [file] = event.target.files ?? [];
            event.target.value = '';
            if (file) void recipes.read(file);
          }}
        />
      </label>
      {failure && <Note tone="ember">{failure}</Note>}
    </>
  );
}

function Row({ kept, layers, isAny }: { kept: KeptRecipe; layers: AtLeastOne<Layer>; isAny: boolean }) {
  const { name } = kept;
  return (
    <li className="flex items-center gap-2 border-rule border-b">
      <span className="min-w-0 flex-1 truncate">{name}</span>
      {isAny && (
        <TextButton
          onClick={() =>
            recipes.putOn(
              kept,
              layers.map(({ id }) => id),
            )
          }
        >
          {`Put on ${layers.length === 1 ? layers[0].name : countOf(layers.length, 'layer')}`}
        </TextButton>
      )}
      <a
        href={recipeFile(kept)}
        download={`${name}.json`}
        aria-label={`Write ${name} to a file`}
        {...tip(`Write ${name} to a file`)}
        className="grid size-8 place-items-center rounded-edge hover:bg-wash"
      >
        <FileDown size={16} strokeWidth={1.5} aria-hidden />
      </a>
      <IconButton icon={Trash2} label={`Forget ${name}`} onClick={() => recipes.forget(name)} />
    </li>
  );
}
