/** How long a question may be answered, s; empty until it is closed. */
export const TIMES = [
  { value: '', label: 'Until I close it' },
  ...[15, 30, 60, 120, 300].map((s) => ({
    value: String(s),
    label: s < 60 ? `${s} seconds` : s === 60 ? '1 minute' : `${s / 60} minutes`,
  })),
];
