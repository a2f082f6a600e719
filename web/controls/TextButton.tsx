// TextButton.tsx — an action written as a word among others.
export function TextButton({ onClick, children }: { onClick: () => void; children: string }) {
  return (
    <button type="button" className="rounded-edge text-tide underline-offset-2 hover:underline" onClick={onClick}>
      {children}
    </button>
  );
}
