// ThinPlaces.tsx — the thinnest stroke in the strip, and the other thin places in a list: each is shown at whatever station one is.
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import { formatNumber } from '../format.ts';
import { placeOf, type ThinPlace } from '../stations/build/narrowest.ts';
import { screen } from '../store/screen.ts';

function show(place: ThinPlace): void {
  screen.select([place.of.id]);
  screen.pointAt(placeOf(place), place.of.id);
}

/** @param places the thinnest first; at least one */
export function ThinPlaces({ places, unit }: { places: readonly ThinPlace[]; unit: string }) {
  return (
    <Popover className="relative inline-block">
      <PopoverButton
        className="underline decoration-rule decoration-dotted underline-offset-4"
        onClick={() => show(places[0]!)}
      >
        <span className="mr-1 text-quiet">thinnest stroke </span>
        <span className="figure" data-proof="thinnest stroke">
          {formatNumber(2 * places[0]!.halfWidth)} {unit}
        </span>
      </PopoverButton>
      <PopoverPanel className="absolute bottom-full left-0 z-40 mb-2 w-64 rounded-edge border border-rule bg-sheet py-2 shadow-lg">
        <h2 className="px-4 pb-1 font-serif text-base">Thin places</h2>
        <ol aria-label="Thin places, the thinnest first">
          {places.map((place) => (
            <li key={`${place.of.id} ${place.at.join()}`}>
              <button
                type="button"
                className="flex w-full justify-between px-4 py-1 text-left text-sm hover:bg-wash"
                onClick={() => show(place)}
              >
                <span className="truncate">{place.of.name}</span>
                <span className="figure">
                  {formatNumber(2 * place.halfWidth)} {unit}
                </span>
              </button>
            </li>
          ))}
        </ol>
      </PopoverPanel>
    </Popover>
  );
}
