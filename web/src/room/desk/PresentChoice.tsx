import { NativeSelect, Radio, Slider, Stack, Text } from '@mantine/core';
import { isOn } from '@nimble-bell/core/room';
import { SmallButton } from '../../ui/SmallButton';
import { useDevices } from '../door/useDevices';
import { useInside, useRoom, type Inside } from '../live/useRoom';
import { chooseDevices, ownDevices, type Paper, type Presents } from '../live/ownDevices';
import { paperLamp } from '../live/paper';
import classes from './desk.module.css';

const WORDS: Record<Presents, [label: string, about: string]> = {
  sharp: ['Text and pages', 'Sharp, on a narrow line too.'],
  moving: [
    'What moves',
    'Smooth; the sound of a tab goes out with your microphone. A film with its sound: Film, which all have at the same moment.',
  ],
  paper: ['Paper under a camera', 'A second camera, turned, cut and lit as you like.'],
};

const MOST_CLOSER = 4;
/** By so many half stops it is brighter, or darker, at most. */
const MOST_BRIGHTER = 4;

const select = ({ room, info: { me } }: Inside) => isOn(room, me.member, 'screen');

/** What one presents: it is sent accordingly, now and the next time. */
export default function PresentChoice() {
  const { call } = useRoom();
  const { presents } = ownDevices.use();
  const presenting = useInside(select);
  const choose = (next: Presents) => {
    chooseDevices({ presents: next });
    if (next !== 'paper') call.presentAs(next);
  };
  return (
    <Stack gap={6} mt="sm" component="section" aria-label="What you present">
      <Radio.Group label="What you present" value={presents} onChange={(value) => choose(value as Presents)}>
        <Stack gap={8} mt={6}>
          {(Object.keys(WORDS) as Presents[]).map((value) => (
            <Radio
              key={value}
              value={value}
              label={WORDS[value][0]}
              description={presents === value ? WORDS[value][1] : undefined}
            />
          ))}
        </Stack>
      </Radio.Group>
      {presents === 'paper' && <PaperChoice />}
      {presenting && presents === 'paper' && (
        <Text size="xs" c="dimmed">
          A screen that is presented stays it until you present again.
        </Text>
      )}
    </Stack>
  );
}

/** Which camera is over the paper, and how its picture is shown; seen at once by all while it is presented. */
function PaperChoice() {
  const { paper, paperCamera } = ownDevices.use();
  const cameras = useDevices().filter((d) => d.kind === 'videoinput' && d.deviceId && d.label);
  const show = (more: Partial<Paper>) => chooseDevices({ paper: { ...paper, ...more } });
  const along = (label: string, of: 'x' | 'y') => (
    <div>
      <Text size="xs">{label}</Text>
      <Slider
        thumbLabel={label}
        label={null}
        min={0}
        max={1}
        step={0.05}
        value={paper[of]}
        onChange={(value) => show({ [of]: value })}
      />
    </div>
  );
  return (
    <>
      <NativeSelect
        size="xs"
        label="The camera over it"
        data={[
          { value: '', label: 'As the browser has it' },
          ...cameras.map((d) => ({ value: d.deviceId, label: d.label })),
        ]}
        value={cameras.some((d) => d.deviceId === paperCamera) ? paperCamera : ''}
        onChange={(e) => chooseDevices({ paperCamera: e.currentTarget.value })}
      />
      <div className={classes.paper}>
        <SmallButton onClick={() => show({ turn: (paper.turn + 1) % 4 })}>Turn it</SmallButton>
        <SmallButton
          disabled={paper.closer >= MOST_CLOSER}
          onClick={() => show({ closer: Math.min(MOST_CLOSER, paper.closer * 1.25) })}
        >
          Closer
        </SmallButton>
        <SmallButton
          disabled={paper.closer <= 1}
          onClick={() => show({ closer: Math.max(1, paper.closer / 1.25) })}
        >
          Further off
        </SmallButton>
      </div>
      <Lighting paper={paper} show={show} />
      {paper.closer > 1 && (
        <>
          {along('How far to the right', 'x')}
          {along('How far down', 'y')}
        </>
      )}
    </>
  );
}

interface LightingProps {
  paper: Paper;
  show: (more: Partial<Paper>) => void;
}

/** How bright it is; and the lamp of a camera that has one. */
function Lighting({ paper, show }: LightingProps) {
  const hasLamp = paperLamp.use();
  return (
    <div className={classes.paper}>
      <SmallButton
        disabled={paper.brighter >= MOST_BRIGHTER}
        onClick={() => show({ brighter: paper.brighter + 1 })}
      >
        Brighter
      </SmallButton>
      <SmallButton
        disabled={paper.brighter <= -MOST_BRIGHTER}
        onClick={() => show({ brighter: paper.brighter - 1 })}
      >
        Darker
      </SmallButton>
      {hasLamp && (
        <SmallButton aria-pressed={paper.lamp} apart={paper.lamp} onClick={() => show({ lamp: !paper.lamp })}>
          The camera’s lamp
        </SmallButton>
      )}
    </div>
  );
}
