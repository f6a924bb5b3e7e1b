/** How much of a file is on its way, as a share of it; the browser's own bar, which weighs nothing. */
export const OnItsWay = ({ share }: { share: number | null }) =>
  share === null ? null : (
    <progress
      value={share}
      max={1}
      aria-label="The file is on its way"
      style={{ width: '100%', accentColor: 'var(--pine)' }}
    />
  );
