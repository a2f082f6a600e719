// Panel.tsx — a titled part of a side panel.
import type { ReactNode } from 'react';

export function Panel({ title, aside, children }: { title: string; aside?: ReactNode; children: ReactNode }) {
  return (
    <section className="border-rule border-b px-5 py-4">
      <header className="mb-2 flex items-baseline justify-between gap-2">
        <h2 className="font-serif text-lg">{title}</h2>
        {aside}
      </header>
      {children}
    </section>
  );
}

/** A sentence whose values are controls. */
export function Sentence({ children }: { children: ReactNode }) {
  return <p className="my-2 leading-8">{children}</p>;
}

/** Something that was done differently, or is wrong. */
export function Note({ tone = 'quiet', children }: { tone?: 'quiet' | 'ember' | 'tide'; children: ReactNode }) {
  const colour = { quiet: 'border-rule text-quiet', ember: 'border-ember text-ember', tide: 'border-tide text-ink' }[
    tone
  ];
  return <p className={`my-2 border-l-2 pl-3 text-sm ${colour}`}>{children}</p>;
}
