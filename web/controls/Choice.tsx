// Choice.tsx — a choice that is part of a sentence.
import { Listbox, ListboxButton, ListboxOption, ListboxOptions } from '@headlessui/react';
import { ChevronDown } from 'lucide-react';
import { memo, useLayoutEffect, useRef, useState } from 'react';
import { MIXED } from './shared.ts';

export interface ChoiceProps<T extends string> {
  label: string;
  value: T;
  /** Whether it stands for several that differ. */
  isMixed?: boolean;
  options: readonly (readonly [value: T, words: string])[];
  onChange: (value: T) => void;
}

/** Sentences are written anew at every step of a drag; their choices are drawn again only when they read differently. */
export function Choice<T extends string>({ label, value, isMixed = false, options, onChange }: ChoiceProps<T>) {
  const latest = useRef(onChange);
  useLayoutEffect(() => {
    latest.current = onChange;
  });
  const [choose] = useState(() => (next: string) => latest.current(next as T));
  return <Words label={label} value={isMixed ? null : value} options={JSON.stringify(options)} onChange={choose} />;
}

interface WordsProps {
  label: string;
  /** Null for several that differ. */
  value: string | null;
  /** As JSON, so that equal options are equal. */
  options: string;
  onChange: (value: string) => void;
}

const Words = memo(function Words({ label, value, options, onChange }: WordsProps) {
  const choices: [value: string, words: string][] = JSON.parse(options);
  const words = choices.find(([option]) => option === value)?.[1] ?? value ?? MIXED;
  return (
    <Listbox value={value ?? ''} onChange={onChange}>
      <ListboxButton
        aria-label={`${label}: ${words}`}
        className="inline-flex items-baseline gap-0.5 rounded-edge border-tide border-b bg-wash px-1 text-tide leading-6"
      >
        {words}
        <ChevronDown size={12} className="self-center" aria-hidden />
      </ListboxButton>
      <ListboxOptions
        anchor={{ to: 'bottom start', gap: 4 }}
        className="z-30 min-w-40 rounded-edge border border-rule bg-sheet py-1 shadow-lg focus:outline-none"
      >
        {choices.map(([option, text]) => (
          <ListboxOption
            key={option}
            value={option}
            className="cursor-pointer px-3 py-1 data-[focus]:bg-wash data-[selected]:text-tide"
          >
            {text}
          </ListboxOption>
        ))}
      </ListboxOptions>
    </Listbox>
  );
});
