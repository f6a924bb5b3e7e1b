/** The title of a dialog that is begun at it: it is read first, and what can be done follows. */
export function Begin({ children }: { children: string }) {
  return (
    <span data-autofocus tabIndex={-1}>
      {children}
    </span>
  );
}
