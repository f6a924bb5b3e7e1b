/** What is rung: partials in Hz, how loud at first (0 to 1), and how long until they have faded, s. */
const BELLS = {
  /** For everybody: a time is over, a recording begins, somebody comes. */
  room: { partials: [880, 1318], loud: 0.12, fades: 0.9 },
  /** For whoever teaches and may be speaking: a hand is up. */
  hand: { partials: [523, 659], loud: 0.06, fades: 0.45 },
};

/** A small bell: two partials that fade. */
export function ring(which: keyof typeof BELLS = 'room') {
  const { partials, loud, fades } = BELLS[which];
  const context = new AudioContext();
  const out = context.createGain();
  const now = context.currentTime;
  out.gain.setValueAtTime(loud, now);
  out.gain.exponentialRampToValueAtTime(0.0001, now + fades);
  out.connect(context.destination);
  for (const frequency of partials) {
    const partial = context.createOscillator();
    partial.frequency.value = frequency;
    partial.connect(out);
    partial.start(now);
    partial.stop(now + fades);
  }
  setTimeout(() => void context.close(), 1000 * fades + 300);
}
