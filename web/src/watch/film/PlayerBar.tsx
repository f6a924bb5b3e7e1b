import { Button, Group, NativeSelect, Switch, Text } from '@mantine/core';
import type { RecordingDetail } from '@nimble-bell/core/api';
import { savedBy } from '@nimble-bell/core/watching';
import { languageWords } from '../languages';
import { lengthWords } from '../words';
import { VIEW_WORDS, VIEWS, type View } from './seen';
import { PLACES, SIZES, SPEEDS, type Keep, type Kept } from './useKept';
import type { Film } from './useMedia';

const STEP_S = 10;
/** A recording is shortened by its silences where that is worth a word, ms. */
const WORTH_MS = 5000;

interface PlayerBarProps {
  recording: RecordingDetail;
  film: Film;
  playing: boolean;
  position: number;
  kept: Kept;
  keep: Keep;
  /** Where one went on, ms; null where one began at the beginning. */
  resumed: number | null;
  whole: () => void;
  keys: () => void;
}

/** What one does with the film. */
export function PlayerBar(props: PlayerBarProps) {
  const { recording, film, playing, position, resumed } = props;
  return (
    <Group mt="xs" gap="sm" role="group" aria-label="The film">
      <Button size="xs" miw={92} onClick={film.toggle}>
        {playing ? 'Stand still' : 'Play'}
      </Button>
      <Text size="sm" className="figures">
        {lengthWords(position)} of {lengthWords(recording.lengthMs)}
      </Text>
      <Button.Group>
        <Step film={film} by={-STEP_S} />
        <Step film={film} by={STEP_S} />
      </Button.Group>
      <Ways {...props} />
      {resumed !== null && (
        <Group gap="xs">
          <Text size="sm">You were at {lengthWords(resumed)}.</Text>
          <Button size="compact-sm" variant="default" onClick={() => film.seek(0)}>
            From the beginning
          </Button>
        </Group>
      )}
    </Group>
  );
}

const Step = ({ film, by }: { film: Film; by: number }) => (
  <Button
    size="xs"
    variant="default"
    aria-label={by < 0 ? `${-by} seconds back` : `${by} seconds on`}
    onClick={() => film.seek(film.now() + by * 1000)}
  >
    {by < 0 ? `− ${-by} s` : `+ ${by} s`}
  </Button>
);

/** How one watches: pace, what is large, captions, silences, loudness. */
function Ways({ recording, kept, keep, whole, keys }: PlayerBarProps) {
  const { pictures, silences, captions } = recording;
  const both = new Set(pictures.map((p) => p.kind)).size > 1;
  const saved = savedBy(silences);
  return (
    <>
      <NativeSelect
        size="xs"
        aria-label="Speed"
        value={String(kept.speed)}
        data={SPEEDS.map((s) => ({
          value: String(s),
          label: s === 1 ? 'As it was spoken' : `${s} times as fast`,
        }))}
        onChange={(e) => keep({ speed: Number(e.currentTarget.value) })}
      />
      {both && (
        <NativeSelect
          size="xs"
          aria-label="What is large"
          value={kept.view}
          data={VIEWS.map((value) => ({ value, label: VIEW_WORDS[value] }))}
          onChange={(e) => keep({ view: e.currentTarget.value as View })}
        />
      )}
      {captions.length > 0 && <CaptionWays {...{ captions, kept, keep }} />}
      {saved > WORTH_MS && (
        <Switch
          size="xs"
          label={`Pass over silences (${lengthWords(saved)} less)`}
          checked={kept.silences}
          onChange={(e) => keep({ silences: e.currentTarget.checked })}
        />
      )}
      <label>
        <Text component="span" size="sm">
          Loudness{' '}
        </Text>
        <input
          type="range"
          min={0}
          max={1}
          step={0.05}
          style={{ width: 90, verticalAlign: 'middle', minHeight: 24, accentColor: 'var(--pine)' }}
          value={kept.volume}
          onChange={(e) => keep({ volume: Number(e.currentTarget.value) })}
        />
      </label>
      {pictures.length > 0 && (
        <Button size="xs" variant="default" onClick={whole}>
          Whole window
        </Button>
      )}
      <Button size="xs" variant="subtle" onClick={keys}>
        Keys
      </Button>
    </>
  );
}

type CaptionProps = Pick<PlayerBarProps, 'kept' | 'keep'> & Pick<RecordingDetail, 'captions'>;

/** Which captions are shown, and where they are how. */
function CaptionWays({ captions, kept, keep }: CaptionProps) {
  const shown = captions.some((c) => c.language === kept.captions);
  const languages = captions.map(({ language }) => ({
    value: language,
    label: `Captions, ${languageWords(language)}`,
  }));
  return (
    <>
      <NativeSelect
        size="xs"
        aria-label="Captions"
        value={shown ? kept.captions : ''}
        data={[{ value: '', label: 'No captions' }, ...languages]}
        onChange={(e) => keep({ captions: e.currentTarget.value })}
      />
      {shown && (
        <>
          <NativeSelect
            size="xs"
            aria-label="Size of the captions"
            value={kept.size}
            data={SIZES.map((value) => ({ value, label: `Captions ${value}` }))}
            onChange={(e) => keep({ size: e.currentTarget.value as Kept['size'] })}
          />
          <NativeSelect
            size="xs"
            aria-label="Place of the captions"
            value={kept.place}
            data={PLACES.map((value) => ({
              value,
              label: `${value === 'above' ? 'Above' : 'Below'} the picture`,
            }))}
            onChange={(e) => keep({ place: e.currentTarget.value as Kept['place'] })}
          />
        </>
      )}
    </>
  );
}
