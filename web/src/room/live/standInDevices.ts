/** A camera where there is none: a drawn horizon that moves, in a colour of its own. */
export function standInCamera(words = 'Stand-in camera', hue = 201): MediaStreamTrack {
  const canvas = document.createElement('canvas');
  canvas.width = 640;
  canvas.height = 480;
  const draw = canvas.getContext('2d')!;
  const paint = () => {
    const t = performance.now() / 1000;
    draw.fillStyle = '#DCEAF1';
    draw.fillRect(0, 0, 640, 480);
    draw.fillStyle = `hsl(${hue} 50% 37%)`;
    draw.beginPath();
    draw.moveTo(0, 480);
    for (let x = 0; x <= 640; x += 16) draw.lineTo(x, 280 + 14 * Math.sin(x / 60 + t));
    draw.lineTo(640, 480);
    draw.fill();
    draw.fillStyle = '#22302B';
    draw.font = '600 30px sans-serif';
    draw.fillText(words, 28, 240);
  };
  paint();
  const timer = setInterval(paint, 60);
  const track = canvas.captureStream(15).getVideoTracks()[0]!;
  const stop = track.stop.bind(track);
  track.stop = () => (clearInterval(timer), stop());
  return track;
}

/** A microphone of this page's making: it ends with its track. */
function madeMicrophone(makes: (context: AudioContext, out: AudioNode) => void): MediaStreamTrack {
  const context = new AudioContext();
  const out = context.createMediaStreamDestination();
  makes(context, out);
  const track = out.stream.getAudioTracks()[0]!;
  const stop = track.stop.bind(track);
  track.stop = () => (void context.close(), stop());
  return track;
}

/** A microphone where there is none: a soft tone that comes and goes; its height in Hz. */
export const standInMicrophone = (height = 220): MediaStreamTrack =>
  madeMicrophone((context, out) => {
    const tone = context.createOscillator();
    const swell = context.createOscillator();
    const loudness = context.createGain();
    const depth = context.createGain();
    tone.frequency.value = height;
    swell.frequency.value = 0.7;
    loudness.gain.value = 0.05;
    depth.gain.value = 0.05;
    swell.connect(depth).connect(loudness.gain);
    tone.connect(loudness).connect(out);
    tone.start();
    swell.start();
  });

/** A breath before what is said is said again, s. */
const BREATH_S = 2;

/** A microphone into which somebody says the same again and again: a recorded voice, in any format that the browser decodes. */
export async function speakingMicrophone(voice: ArrayBuffer): Promise<MediaStreamTrack> {
  const once = await new OfflineAudioContext(1, 1, 48_000).decodeAudioData(voice);
  return madeMicrophone((context, out) => {
    const said = context.createBuffer(1, once.length + BREATH_S * once.sampleRate, once.sampleRate);
    said.copyToChannel(once.getChannelData(0), 0);
    const source = context.createBufferSource();
    source.buffer = said;
    source.loop = true;
    source.connect(out);
    source.start();
  });
}
