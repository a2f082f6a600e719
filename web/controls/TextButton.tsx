// TextButton.tsx — an action written as a word among others.
export function TextButton({ onClick, children }: { onClick: () => void; children: string }) {
  return (
    <button
      type="button"
      className="inline-block min-w-6 rounded-edge text-left text-tide underline-offset-2 hover:underline"
      onClick={onClick}
    >
      {children}
    </button>
  );
}
