import { Anchor, Container, Stack, Text, Title } from '@mantine/core';
import { Link, useParams } from 'react-router';
import {
  dayWords,
  dateIn,
  styleOfLocale,
  timeWords,
  toWall,
  type OwnStyle,
} from '@nimble-bell/core/calendar';
import { Bar } from '../app/Bar';
import { useNow } from '../app/clock';
import { Choice, type Option } from '../ui/Choice';
import { Panel } from '../ui/Panel';
import { KeyTable } from './KeyTable';
import { useWays } from './useWays';
import { deviceZone } from '../app/reader';

const HOURS: Option<'12' | '24'>[] = [
  { value: '24', label: '18:30' },
  { value: '12', label: '6:30 pm' },
];
const ORDERS: Option<'day first' | 'month first'>[] = [
  { value: 'day first', label: '6 Oct' },
  { value: 'month first', label: 'Oct 6' },
];
const BEGINNINGS: Option<'monday' | 'saturday' | 'sunday'>[] = [
  { value: 'monday', label: 'Monday' },
  { value: 'saturday', label: 'Saturday' },
  { value: 'sunday', label: 'Sunday' },
];

/** How one reads and works: days and hours, and the keys of the room. On every device of theirs, and in their letters. */
export function WaysPage() {
  const { code } = useParams();
  const home = code ? `/in/${code}` : '/courses';
  return (
    <>
      <Bar home={home} />
      <Container size="sm" py="lg" component="main" id="content">
        <Title order={1} size="h2" mb="md">
          Your ways
        </Title>
        <Stack>
          <DaysAndHours />
          <Panel
            title="Keys of the room"
            about="They work while you are in class, and never while you type or choose. Any can be another, or none."
          >
            <KeyTable who={code ? 'students' : null} />
          </Panel>
          <Anchor component={Link} to={home}>
            {code ? 'Back to your course' : 'Back to your courses'}
          </Anchor>
        </Stack>
      </Container>
    </>
  );
}

function DaysAndHours() {
  const { ways, keep } = useWays();
  const now = useNow(30_000);
  const zone = deviceZone();
  const usual = styleOfLocale(navigator.language);
  const { style } = ways;
  const set = (more: OwnStyle) => keep((known) => ({ style: { ...known.style, ...more } }));
  return (
    <Panel title="Days and hours" about="On pages, and in the letters you get.">
      <Stack gap="sm">
        <Row
          label="Hours"
          options={HOURS}
          value={style.hours ?? usual.hours}
          choose={(hours) => set({ hours })}
        />
        <Row
          label="Days"
          options={ORDERS}
          value={style.order ?? usual.order}
          choose={(order) => set({ order })}
        />
        <Row
          label="The week begins on"
          options={BEGINNINGS}
          value={BEGINNINGS.find((o) => o.value === (style.weekBegins ?? usual.weekBegins))?.value ?? null}
          choose={(weekBegins) => set({ weekBegins })}
        />
        <Text size="sm" c="dimmed">
          So it is now {timeWords(toWall(zone, now).minutes)} on {dayWords(dateIn(zone, now))}.
        </Text>
      </Stack>
    </Panel>
  );
}

function Row<T extends string>(props: {
  label: string;
  options: Option<T>[];
  value: T | null;
  choose: (value: T) => void;
}) {
  return (
    <div>
      <Text size="sm" aria-hidden mb={2}>
        {props.label}
      </Text>
      <Choice
        label={props.label}
        options={props.options}
        value={props.value}
        onChange={props.choose}
        follows={false}
      />
    </div>
  );
}
