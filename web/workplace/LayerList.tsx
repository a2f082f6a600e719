// LayerList.tsx — the layers by name, the highest first: chosen, renamed, hidden, left out of the build.
import { Menu, MenuButton, MenuItem, MenuItems, MenuSeparator } from '@headlessui/react';
import { Ellipsis, Eye, EyeOff } from 'lucide-react';
import { memo, type RefObject, useEffect, useRef } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { differsFromRule, heightOf, type Layer, RULED } from '../../core/index.ts';
import { IconButton } from '../controls/IconButton.tsx';
import { actOf, type Key, pressedOf } from '../controls/keys.ts';
import { tip } from '../controls/Tips.tsx';
import { formatNumber } from '../format.ts';
import { LAYER_KEYS, type LayerKey } from '../stations/build/layer-keys.ts';
import { chooseNext } from '../store/layers.ts';
import { dispatch, useDocumentPart } from '../store/project.ts';
import { screen, useScreen } from '../store/screen.ts';

export function LayerList() {
  const layers = useDocumentPart((document) => document.layers);
  const first = useScreen((state) => layers.findLast(({ id }) => state.selected.includes(id))?.id ?? layers.at(-1)?.id);
  const list = useHotkeys<HTMLUListElement>(
    pressedOf(LIST_KEYS),
    (event, pressed) => {
      // What is pressed here is meant for layers, whatever it means at the station.
      event.stopPropagation();
      actOf(LIST_KEYS)(event, pressed);
    },
    { preventDefault: true },
  );
  /** Whether the focus is here, or was on something of the list that is gone now. */
  const isHere = useRef(false);
  useEffect(() => {
    if (isHere.current && document.activeElement === document.body) focusLayer(first);
  });
  return (
    <ul
      ref={list}
      onFocus={() => {
        isHere.current = true;
      }}
      onBlur={({ target }) => {
        isHere.current = !target.isConnected;
      }}
      className="min-h-0 flex-1 overflow-y-auto border-rule border-t py-1"
      aria-label="Layers"
    >
      {layers.toReversed().map((layer) => (
        <LayerRow key={layer.id} layer={layer} isFirst={layer.id === first} />
      ))}
    </ul>
  );
}

/** Moves the choice, and the focus with it. */
function go(by: 1 | -1, isRange: boolean): void {
  const id = chooseNext(by, isRange);
  if (id) focusLayer(id);
}

const focusLayer = (id: string | undefined) => document.querySelector<HTMLElement>(`[data-layer="${id}"]`)?.focus();

const LIST_KEYS: readonly Key[] = [
  { keys: 'arrowup', shown: '↑', does: 'Choose the layer above', act: () => go(1, false) },
  { keys: 'arrowdown', shown: '↓', does: 'Choose the layer below', act: () => go(-1, false) },
  { keys: 'shift+arrowup', shown: 'Shift ↑', does: 'Choose the layer above as well', act: () => go(1, true) },
  { keys: 'shift+arrowdown', shown: 'Shift ↓', does: 'Choose the layer below as well', act: () => go(-1, true) },
  ...LAYER_KEYS,
];

const LayerRow = memo(function LayerRow({ layer, isFirst }: { layer: Layer; isFirst: boolean }) {
  const selected = useScreen((state) => state.selected.includes(layer.id));
  const isHidden = useScreen((state) => state.hidden.includes(layer.id));
  const isRenamed = useScreen((state) => state.renaming === layer.id);
  const order = useDocumentPart(({ layers }) => layers);
  const differs = useDocumentPart((document) =>
    RULED.filter((what) => differsFromRule(document, layer, what) !== null).join(', '),
  );
  const { id, name, shown, ground, build, material } = layer;
  const menu = useRef<HTMLButtonElement>(null);
  return (
    <li
      className={`group flex items-center gap-1.5 pr-1.5 pl-4 ${selected ? 'bg-wash' : ''}`}
      onContextMenu={(event) => {
        event.preventDefault();
        if (!selected) screen.select([id]);
        menu.current?.click();
      }}
    >
      <label
        className="grid size-6 shrink-0 place-items-center"
        title={shown ? `${name} is built` : `${name} is left out`}
      >
        <input
          type="checkbox"
          className="size-3.5 accent-tide"
          aria-label={`Build ${name}`}
          checked={shown}
          onChange={() => dispatch({ do: 'change-layers', layers: [id], change: { shown: !shown } })}
        />
      </label>
      <span aria-hidden className="size-3.5 shrink-0 border border-rule" style={{ background: material.colour }} />
      {isRenamed ? (
        <NameField id={id} name={name} />
      ) : (
        <button
          type="button"
          data-layer={id}
          aria-pressed={selected}
          tabIndex={isFirst ? 0 : -1}
          className={`min-w-0 flex-1 truncate py-1 pl-0.5 text-left ${shown ? '' : 'text-quiet'} ${selected ? 'text-tide' : ''}`}
          onClick={(event) => {
            const from = order.map((other) => other.id);
            if (event.shiftKey) screen.selectTo(id, from);
            else screen.click(id, event);
          }}
          onDoubleClick={() => screen.rename(id)}
        >
          {name}
          {ground && <span className="text-quiet text-sm"> · not built</span>}
        </button>
      )}
      {shown && !isRenamed && (
        <span className="figure text-quiet">
          {differs && (
            <span className="mr-1 text-tide" title={`The ${differs} differs from its rule`}>
              ≠
            </span>
          )}
          {formatNumber(heightOf(build))}
        </span>
      )}
      <IconButton
        icon={isHidden ? EyeOff : Eye}
        label={`Hide ${name} in the view`}
        keys="H"
        pressed={isHidden}
        className={`!size-6 !text-quiet ${isHidden ? '' : '!bg-transparent opacity-0 focus-visible:opacity-100 group-hover:opacity-100'} ${selected ? 'opacity-100' : ''}`}
        onClick={() => screen.toggleHidden([id])}
      />
      <LayerMenu button={menu} name={name} isSelected={selected} id={id} />
    </li>
  );
});

function NameField({ id, name }: { id: string; name: string }) {
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => field.current?.select(), []);
  const done = (text: string) => {
    screen.rename(null);
    const next = text.trim();
    if (next && next !== name) dispatch({ do: 'change-layers', layers: [id], change: { name: next } });
  };
  return (
    <input
      ref={field}
      aria-label={`Name of ${name}`}
      defaultValue={name}
      maxLength={120}
      className="min-w-0 flex-1 rounded-edge border-tide border-b bg-sheet px-0.5 py-0.5"
      onBlur={(event) => done(event.target.value)}
      onKeyDown={(event) => {
        if (event.key === 'Enter') event.currentTarget.blur();
        else if (event.key === 'Escape') {
          event.currentTarget.value = name;
          event.currentTarget.blur();
        } else return;
        event.preventDefault();
        event.stopPropagation();
      }}
    />
  );
}

interface LayerMenuProps {
  button: RefObject<HTMLButtonElement | null>;
  id: string;
  name: string;
  isSelected: boolean;
}

function LayerMenu({ button, id, name, isSelected }: LayerMenuProps) {
  return (
    <Menu>
      <MenuButton
        ref={button}
        aria-label={`Menu of ${name}`}
        {...tip(`Menu of ${name}`)}
        tabIndex={isSelected ? 0 : -1}
        className={`inline-flex size-6 shrink-0 items-center justify-center rounded-edge text-quiet hover:bg-wash focus-visible:opacity-100 group-hover:opacity-100 ${isSelected ? '' : 'opacity-0'}`}
        onClick={() => {
          if (!isSelected) screen.select([id]);
        }}
      >
        <Ellipsis size={15} aria-hidden />
      </MenuButton>
      <MenuItems
        anchor={{ to: 'bottom start', gap: 2 }}
        className="z-40 w-56 rounded-edge border border-rule bg-sheet py-1 shadow-lg focus:outline-none"
      >
        {LAYER_KEYS.map((key) => (
          <MenuRow key={key.does} entry={key} />
        ))}
      </MenuItems>
    </Menu>
  );
}

function MenuRow({ entry: { does, shown, act, isApart } }: { entry: LayerKey }) {
  return (
    <>
      {isApart && <MenuSeparator className="my-1 h-px bg-rule" />}
      <MenuItem>
        <button
          type="button"
          className="flex w-full justify-between gap-4 px-3 py-1 text-left data-[focus]:bg-wash"
          onClick={() => act()}
        >
          {does}
          <span className="figure text-quiet">{shown}</span>
        </button>
      </MenuItem>
    </>
  );
}
