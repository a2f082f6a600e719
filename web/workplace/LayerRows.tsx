// LayerRows.tsx — a row of the layer list: a layer, or a group with what is in it.

import { Menu, MenuButton, MenuItem, MenuItems, MenuSeparator } from '@headlessui/react';
import { ChevronDown, ChevronRight, Ellipsis, Eye, EyeOff, Lock } from 'lucide-react';
import { memo, type ReactNode, type RefObject, useEffect, useRef, useState } from 'react';
import { type Command, differsFromRule, type Group, heightOf, type Layer, RULED } from '../../core/index.ts';
import { IconButton } from '../controls/IconButton.tsx';
import { tip } from '../controls/Tips.tsx';
import { formatNumber } from '../format.ts';
import { LAYER_KEYS, type LayerKey } from '../stations/build/layer-keys.ts';
import { chooseGroup, type DropPlace, toggleBuilt, toggleLocked } from '../store/layers.ts';
import { dispatch, useDocumentPart, useProject } from '../store/project.ts';
import { screen, useScreen } from '../store/screen.ts';

/** Of a row in the list. */
interface Place {
  /** How many groups it is in. */
  depth: number;
  isTabStop: boolean;
  /** Pixels from the top of the list. */
  top: number;
  /** Where what is dragged would come to lie. */
  drop: DropPlace['side'] | null;
  /** From 1, of how many. */
  place: number;
  of: number;
}

export const LayerRow = memo(function LayerRow({ layer, ...place }: { layer: Layer } & Place) {
  const { id, name, shown, ground, build, material, locked } = layer;
  const selected = useScreen((state) => state.selected.includes(id));
  const isHidden = useScreen((state) => state.hidden.includes(id));
  const isRenamed = useScreen((state) => state.renaming === id);
  const differs = useDocumentPart((document) =>
    RULED.filter((what) => differsFromRule(document, layer, what) !== null).join(', '),
  );
  const choose = () => screen.select([id]);
  return (
    <Row
      {...place}
      id={id}
      name={name}
      selected={selected}
      isDim={!shown}
      onMenu={choose}
      onClick={(event) => {
        const order = useProject.getState().history!.present.layers.map((other) => other.id);
        if (event.shiftKey) screen.selectTo(id, order);
        else screen.click(id, event);
      }}
      rename={isRenamed ? (to) => ({ do: 'change-layers', layers: [id], change: { name: to } }) : null}
      build={shown ? 'all' : 'none'}
      onBuild={() => toggleBuilt([layer])}
      sign={
        <span aria-hidden className="size-3.5 shrink-0 border border-rule" style={{ background: material.colour }} />
      }
      note={ground ? 'not built' : null}
      figure={
        shown ? (
          <>
            {differs && (
              <span className="mr-1 text-tide" title={`The ${differs} differs from its rule`}>
                ≠
              </span>
            )}
            {formatNumber(heightOf(build))}
          </>
        ) : null
      }
      isLocked={locked === true}
      onUnlock={() => toggleLocked([layer])}
      isHidden={isHidden}
      onHide={() => screen.toggleHidden([id])}
    />
  );
});

interface GroupRowProps extends Place {
  group: Group;
  layers: readonly Layer[];
  isFolded: boolean;
}

export const GroupRow = memo(function GroupRow({ group, layers, isFolded, ...place }: GroupRowProps) {
  const { id, name } = group;
  const selected = useScreen((state) => state.group === id);
  const isHidden = useScreen((state) => layers.every((layer) => state.hidden.includes(layer.id)));
  const isRenamed = useScreen((state) => state.renaming === id);
  const built = layers.filter(({ shown }) => shown).length;
  const ids = layers.map((layer) => layer.id);
  return (
    <Row
      {...place}
      id={id}
      name={name}
      isGroup
      selected={selected}
      isDim={built === 0}
      onMenu={() => chooseGroup(id)}
      onClick={(event) => {
        if (event.shiftKey || event.ctrlKey || event.metaKey) {
          const { selected: before } = useScreen.getState();
          screen.select([...new Set([...before, ...ids])]);
        } else chooseGroup(id);
      }}
      rename={isRenamed ? (to) => ({ do: 'rename-group', group: id, name: to }) : null}
      build={built === layers.length ? 'all' : built > 0 ? 'some' : 'none'}
      onBuild={() => toggleBuilt(layers)}
      sign={
        <button
          type="button"
          tabIndex={-1}
          aria-expanded={!isFolded}
          aria-label={`${isFolded ? 'Unfold' : 'Fold'} ${name}`}
          className="-mx-1 grid size-6 shrink-0 place-items-center rounded-edge text-quiet hover:bg-wash"
          onClick={() => screen.toggleFolded(id)}
        >
          {isFolded ? <ChevronRight size={15} aria-hidden /> : <ChevronDown size={15} aria-hidden />}
        </button>
      }
      note={null}
      figure={isFolded ? <span title={`${layers.length} layers`}>{layers.length}</span> : null}
      isLocked={layers.length > 0 && layers.every(({ locked }) => locked)}
      onUnlock={() => toggleLocked(layers)}
      isHidden={isHidden}
      onHide={() => screen.toggleHidden(ids)}
    />
  );
});

interface RowProps extends Place {
  id: string;
  name: string;
  isGroup?: boolean;
  selected: boolean;
  isDim: boolean;
  /** Chosen, because its menu is opened. */
  onMenu: () => void;
  onClick: (event: React.MouseEvent) => void;
  /** What gives it another name, while that is typed. */
  rename: ((to: string) => Command) | null;
  build: 'all' | 'some' | 'none';
  onBuild: () => void;
  sign: ReactNode;
  note: string | null;
  figure: ReactNode;
  isLocked: boolean;
  onUnlock: () => void;
  isHidden: boolean;
  onHide: () => void;
}

/** Pixels by which what is in a group stands in. */
const INDENT = 14;

function Row(props: RowProps) {
  const { id, name, isGroup = false, selected, isDim, build, isHidden, isLocked, depth, rename } = props;
  const menu = useRef<HTMLButtonElement>(null);
  return (
    // biome-ignore lint/a11y/useAriaPropsSupportedByRole: ARIA 1.2 has it for items of lists
    <li
      aria-level={depth + 1}
      aria-posinset={props.place}
      aria-setsize={props.of}
      className={`group absolute inset-x-0 flex h-8 items-center gap-1.5 pr-1.5 ${selected ? 'bg-wash' : ''} ${props.drop === 'in' ? 'outline outline-2 outline-tide -outline-offset-2' : ''}`}
      style={{ top: props.top, paddingLeft: 16 + INDENT * depth }}
      onContextMenu={(event) => {
        event.preventDefault();
        if (!selected) props.onMenu();
        menu.current?.click();
      }}
    >
      {(props.drop === 'above' || props.drop === 'below') && (
        <span
          aria-hidden
          data-drop={props.drop}
          className={`pointer-events-none absolute right-1 z-10 h-0.5 bg-tide ${props.drop === 'above' ? '-top-px' : '-bottom-px'}`}
          style={{ left: 16 + INDENT * depth }}
        />
      )}
      <label
        className="grid size-6 shrink-0 place-items-center"
        title={build === 'none' ? `${name} is left out` : `${name} is built`}
      >
        <input
          type="checkbox"
          ref={(box) => {
            if (box) box.indeterminate = build === 'some';
          }}
          className="size-3.5 accent-tide"
          aria-label={`Build ${name}`}
          checked={build === 'all'}
          onChange={props.onBuild}
        />
      </label>
      {props.sign}
      {rename ? (
        <NameField name={name} rename={rename} />
      ) : (
        <button
          type="button"
          data-layer={id}
          aria-pressed={selected}
          tabIndex={props.isTabStop ? 0 : -1}
          className={`focus-visible:!-outline-offset-2 min-w-0 flex-1 truncate py-1 pl-0.5 text-left ${isDim ? 'text-quiet' : ''} ${selected ? 'text-tide' : ''} ${isGroup ? 'font-semibold' : ''}`}
          onClick={props.onClick}
          onDoubleClick={() => screen.rename(id)}
        >
          {name}
          {props.note && <span className="text-quiet text-sm"> · {props.note}</span>}
        </button>
      )}
      {!rename && props.figure && <span className="figure text-quiet">{props.figure}</span>}
      {isLocked && (
        <IconButton
          icon={Lock}
          label={`Unlock ${name}`}
          keys="L"
          className="!size-6 !text-quiet"
          onClick={props.onUnlock}
        />
      )}
      <IconButton
        icon={isHidden ? EyeOff : Eye}
        label={`Hide ${name} in the view`}
        keys="H"
        pressed={isHidden}
        className={`!size-6 !text-quiet ${isHidden ? '' : '!bg-transparent opacity-0 focus-visible:opacity-100 group-hover:opacity-100'} ${selected ? 'opacity-100' : ''}`}
        onClick={props.onHide}
      />
      <RowMenu button={menu} name={name} isSelected={selected} onOpen={props.onMenu} />
    </li>
  );
}

function NameField({ name, rename }: { name: string; rename: (to: string) => Command }) {
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => {
    field.current?.focus();
    field.current?.select();
  }, []);
  const done = (text: string) => {
    screen.rename(null);
    const next = text.trim();
    if (next && next !== name) dispatch(rename(next));
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

interface RowMenuProps {
  button: RefObject<HTMLButtonElement | null>;
  name: string;
  isSelected: boolean;
  onOpen: () => void;
}

/** Of many rows few are asked for their menu: it is made then. */
function RowMenu(props: RowMenuProps) {
  const { button, name, isSelected, onOpen } = props;
  const [isAsked, setAsked] = useState(false);
  useEffect(() => {
    if (isAsked) button.current?.click();
  }, [isAsked, button]);
  if (isAsked) return <MadeMenu {...props} />;
  return (
    <button
      ref={button}
      type="button"
      aria-haspopup="menu"
      aria-label={`Menu of ${name}`}
      {...tip(`Menu of ${name}`)}
      tabIndex={isSelected ? 0 : -1}
      className={menuButtonClass(isSelected)}
      onClick={() => {
        if (!isSelected) onOpen();
        setAsked(true);
      }}
    >
      <Ellipsis size={15} aria-hidden />
    </button>
  );
}

const menuButtonClass = (isSelected: boolean) =>
  `inline-flex size-6 shrink-0 items-center justify-center rounded-edge text-quiet hover:bg-wash focus-visible:opacity-100 group-hover:opacity-100 ${isSelected ? '' : 'opacity-0'}`;

function MadeMenu({ button, name, isSelected, onOpen }: RowMenuProps) {
  return (
    <Menu>
      <MenuButton
        ref={button}
        aria-label={`Menu of ${name}`}
        {...tip(`Menu of ${name}`)}
        tabIndex={isSelected ? 0 : -1}
        className={menuButtonClass(isSelected)}
        onClick={() => {
          if (!isSelected) onOpen();
        }}
      >
        <Ellipsis size={15} aria-hidden />
      </MenuButton>
      <MenuItems
        anchor={{ to: 'bottom start', gap: 2 }}
        className="z-40 w-64 rounded-edge border border-rule bg-sheet py-1 shadow-lg focus:outline-none"
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
