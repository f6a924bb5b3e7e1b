/** A small bell: two partials that fade. */
export function ring() {
  const context = new AudioContext();
  const out = context.createGain();
  const now = context.currentTime;
  out.gain.setValueAtTime(0.12, now);
  out.gain.exponentialRampToValueAtTime(0.0001, now + 0.9);
  out.connect(context.destination);
  for (const frequency of [880, 1318]) {
    const partial = context.createOscillator();
    partial.frequency.value = frequency;
    partial.connect(out);
    partial.start(now);
    partial.stop(now + 0.9);
  }
  setTimeout(() => void context.close(), 1200);
}
