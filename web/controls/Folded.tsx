// Folded.tsx — a part of a panel that is rarely touched. What is folded away is not even made, so that drags do not pay for it.
import { type ReactNode, useState } from 'react';

interface FoldedProps {
  title: string;
  /** Said beside the title. */
  aside?: ReactNode;
  children: ReactNode;
}

export function Folded({ title, aside, children }: FoldedProps) {
  const [isOpen, setOpen] = useState(false);
  return (
    <details className="text-sm" onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary className="cursor-pointer py-0.5 text-quiet">
        {title}
        {aside && <span className="text-tide"> {aside}</span>}
      </summary>
      {isOpen && children}
    </details>
  );
}
