/** The tone by which it is found whether a microphone hears the loudspeaker, Hz; soft, and short, ms. */
export const TONE_HZ = 1240;
export const TONE_MS = 900;
/** So much louder at the tone than before it is hearing it, dB. */
const RISES_DB = 12;

/** Whether a tone is found in what a microphone heard, by its loudness there before and while it sounded, dB. */
export const hearsTone = (before: readonly number[], during: readonly number[]): boolean => {
  const middle = (all: readonly number[]) => [...all].sort((a, b) => a - b)[all.length >> 1] ?? -Infinity;
  return during.length > 0 && middle(during) - middle(before) > RISES_DB;
};

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/** Plays a soft tone, and listens for it with nothing taken out. */
export async function loudspeakerIsHeard(deviceId: string): Promise<boolean> {
  const stream = await navigator.mediaDevices.getUserMedia({
    audio: {
      ...(deviceId ? { deviceId: { ideal: deviceId } } : {}),
      ...{ echoCancellation: false, noiseSuppression: false, autoGainControl: false },
    },
  });
  const context = new AudioContext();
  try {
    const analyser = new AnalyserNode(context, { fftSize: 4096, smoothingTimeConstant: 0 });
    context.createMediaStreamSource(stream).connect(analyser);
    const bins = new Float32Array(analyser.frequencyBinCount);
    const bin = Math.round((TONE_HZ * analyser.fftSize) / context.sampleRate);
    const listen = async (ms: number) => {
      const heard: number[] = [];
      for (const end = performance.now() + ms; performance.now() < end; await pause(60)) {
        analyser.getFloatFrequencyData(bins);
        heard.push(Math.max(...bins.slice(bin - 1, bin + 2)));
      }
      return heard;
    };
    await pause(150);
    const before = await listen(500);
    const tone = new OscillatorNode(context, { frequency: TONE_HZ });
    const soft = new GainNode(context, { gain: 0.06 });
    tone.connect(soft).connect(context.destination);
    tone.start();
    await pause(200);
    const during = await listen(TONE_MS - 200);
    tone.stop();
    return hearsTone(before, during);
  } finally {
    stream.getTracks().forEach((t) => t.stop());
    void context.close();
  }
}
