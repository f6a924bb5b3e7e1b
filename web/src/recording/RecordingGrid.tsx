import { Loader, MultiSelect, NativeSelect, NumberInput, Text } from '@mantine/core';
import { DateInput } from '@mantine/dates';
import { memo, useCallback, useMemo, useState } from 'react';
import type { RulesInput } from '@nimble-bell/core/api';
import { dayWords } from '@nimble-bell/core/calendar';
import { beginsWords, endsWords, LEAVABLE_WORDS, spaceAhead } from '@nimble-bell/core/recording';
import { inForce, LEAVABLE, type Begins, type Ends, type Leavable } from '@nimble-bell/core/settings';
import { useThisCourse } from '../app/course';
import { ChosenLine, PlaceHead, useChosen } from '../limits/ChosenPlaces';
import { placesOf, type Place } from '../limits/places';
import classes from '../limits/term.module.css';
import { useRules, useSetRules } from '../limits/useRules';
import { Panel, Scrolls } from '../ui/Panel';
import { useNear } from '../ui/useNear';
import { BEGINS, beginsOf, ENDS } from './choices';
import own from './grid.module.css';

/** What is on or off. */
type Key = 'automatic' | 'studentsCameras' | 'tables' | 'studentsWatch' | 'studentsDownload';
/** What is so many days. */
type DaysKey = 'watchAfterDays' | 'watchForDays';
type SetIt = (place: Place, said: RulesInput['recording']) => void;

/** The recording of the term, place by place: what holds there and where it is said; set for one, several, all. */
export function RecordingGrid() {
  const course = useThisCourse();
  const rules = useRules();
  const { mutate } = useSetRules('It is in force, for what is recorded already as well.');
  const chosen = useChosen();
  const { together, choose } = chosen;
  const places = useMemo(
    () => (rules.data ? placesOf(course, rules.data, { held: true }) : []),
    [course, rules.data],
  );
  const set = useCallback<SetIt>(
    (place, recording) => mutate({ at: together(place), recording }),
    [mutate, together],
  );
  if (!rules.data) return <Loader aria-label="Looking up what is recorded" />;
  return (
    <Panel
      title="Place by place"
      about="The narrower place counts. Choose several sessions to set them together. Whether one session is recorded at all is said in the plan."
    >
      <ChosenLine chosen={chosen} />
      <Scrolls label="Recording of the term, scrolls">
        <table className={classes.term}>
          <thead>
            <tr>
              {HEADS.map((head) => (
                <th key={head} scope="col">
                  {head}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {places.map((place) => (
              <Row
                key={place.key}
                place={place}
                set={course.role === 'teacher' ? set : null}
                chosen={chosen.has(place)}
                choose={choose}
              />
            ))}
          </tbody>
        </table>
      </Scrolls>
    </Panel>
  );
}

const HEADS = [
  ...['Where', 'Recorded', 'From', 'To', 'Students watch', 'From day', 'For days', 'Students download'],
  ...['Kept until', 'Without', 'Students’ cameras', 'At tables', 'Size, about'],
];

interface RowProps {
  place: Place;
  set: SetIt | null;
  chosen: boolean;
  choose: (key: string, on: boolean) => void;
}

/** A row whose fields are drawn when one comes near it: a term has many. */
const Row = memo(function Row({ place, set, chosen, choose }: RowProps) {
  const { ref, near } = useNear<HTMLTableRowElement>();
  const { layer } = place.at;
  return (
    <tr ref={ref} data-layer={layer} data-chosen={chosen || undefined}>
      <PlaceHead place={place} chosen={chosen} choose={layer === 'session' && set ? choose : null} />
      {near ? <Fields place={place} set={set} /> : <td colSpan={HEADS.length - 1} className={own.far} />}
    </tr>
  );
});

interface ValueProps {
  place: Place;
  set: SetIt | null;
}

function Fields({ place, set }: ValueProps) {
  const course = useThisCourse();
  const session = place.at.layer === 'session' ? course.sessions.find((s) => s.id === place.key) : undefined;
  const automatic = session?.record ?? inForce(place.layers, 'recording', 'automatic')?.value ?? false;
  const { bytes } = spaceAhead(
    session && automatic ? [{ at: session.startsAt, minutes: session.minutes }] : [],
    null,
    Infinity,
  );
  const cells = [
    session ? (
      <Text size="sm">
        {automatic ? 'yes' : 'no'}
        {session.record !== null && ', said in the plan'}
      </Text>
    ) : (
      <Switched place={place} of="automatic" set={set} />
    ),
    <Moment place={place} of="begins" set={set} />,
    <Moment place={place} of="ends" set={set} />,
    <Switched place={place} of="studentsWatch" set={set} />,
    <Days place={place} of="watchAfterDays" set={set} />,
    <Days place={place} of="watchForDays" set={set} />,
    <Switched place={place} of="studentsDownload" set={set} />,
    <KeptUntil place={place} set={set} />,
    <Without place={place} set={set} />,
    <Switched place={place} of="studentsCameras" set={set} />,
    <Switched place={place} of="tables" set={set} />,
    bytes ? `${(bytes / 1e9).toFixed(2)} GB` : '',
  ];
  return cells.map((cell, i) => (
    <td key={i} className="figures">
      {cell}
    </td>
  ));
}

interface PickProps extends ValueProps {
  of: Key | keyof typeof MOMENTS;
  w: number;
  /** What is said here, and what holds where nothing is. */
  said: string | undefined;
  wider: string;
  options: readonly (string | { value: string; label: string })[];
  read: (value: string) => boolean | string | number;
}

/** One of a few, or as the wider place has it. */
const Pick = ({ place, set, of, w, said, wider, options, read }: PickProps) => (
  <NativeSelect
    size="xs"
    w={w}
    disabled={!set}
    aria-label={`${LABELS[of]}: ${place.name}`}
    value={said ?? ''}
    onChange={({ currentTarget: { value } }) => set?.(place, { [of]: value === '' ? null : read(value) })}
    data={[{ value: '', label: `As above: ${wider}` }, ...options]}
  />
);

const yes = (value: boolean | undefined) => (value ? 'yes' : 'no');
const widerThan = ({ layers }: Place) => layers.slice(0, -1);

/** On or off. */
function Switched({ place, of, set }: ValueProps & { of: Key }) {
  const said = place.own.recording[of]?.value;
  return (
    <Pick
      {...{ place, set, of, w: 128 }}
      said={said === undefined ? undefined : yes(said)}
      wider={yes(inForce(widerThan(place), 'recording', of)?.value)}
      options={['yes', 'no']}
      read={(value) => value === 'yes'}
    />
  );
}

const MOMENTS = { begins: BEGINS, ends: ENDS };

/** With what it begins or ends. */
function Moment({ place, of, set }: ValueProps & { of: keyof typeof MOMENTS }) {
  const wider = (key: 'begins' | 'ends') => inForce(widerThan(place), 'recording', key);
  return (
    <Pick
      {...{ place, set, of, w: of === 'begins' ? 222 : 190 }}
      said={place.own.recording[of]?.value.toString()}
      wider={of === 'begins' ? beginsWords(wider(of)?.value as Begins) : endsWords(wider(of)?.value as Ends)}
      options={MOMENTS[of]}
      read={of === 'begins' ? beginsOf : (value) => value}
    />
  );
}

/** So many days; empty is as the wider place has it. Said when the field is left. */
function Days({ place, of, set }: ValueProps & { of: DaysKey }) {
  const own = place.own.recording[of]?.value;
  const wider = inForce(widerThan(place), 'recording', of)?.value ?? 0;
  const [typed, setTyped] = useState<{ over: number | undefined; value: number | string } | null>(null);
  const shown = typed && typed.over === own ? typed.value : (own ?? '');
  const say = () => {
    const value = shown === '' ? undefined : Number(shown);
    if (value !== own) set?.(place, { [of]: value ?? null });
  };
  return (
    <NumberInput
      size="xs"
      {...{ w: 74, min: 0, max: 365, allowDecimal: false, hideControls: true, disabled: !set }}
      aria-label={`${LABELS[of]}: ${place.name}`}
      placeholder={String(wider)}
      value={shown}
      onChange={(value) => setTyped({ over: own, value })}
      onBlur={say}
      onKeyDown={(e) => e.key === 'Enter' && say()}
    />
  );
}

const LABELS: Record<Key | DaysKey | keyof typeof MOMENTS, string> = {
  begins: 'Recorded from',
  ends: 'Recorded to',
  watchAfterDays: 'Watched from so many days after class',
  watchForDays: 'Watched for so many days',
  automatic: 'Recorded',
  studentsCameras: 'Students’ cameras are kept',
  tables: 'What is said at tables is kept',
  studentsWatch: 'Students watch',
  studentsDownload: 'Students download',
};

function KeptUntil({ place, set }: ValueProps) {
  const own = place.own.recording.keepUntil?.value ?? null;
  const wider = inForce(widerThan(place), 'recording', 'keepUntil')?.value;
  return (
    <DateInput
      size="xs"
      w={150}
      disabled={!set}
      clearable
      clearButtonProps={{ 'aria-label': `As above: ${place.name}` }}
      aria-label={`Kept until: ${place.name}`}
      placeholder={wider ? dayWords(wider) : 'not said'}
      value={own}
      onChange={(date) => set?.(place, { keepUntil: date })}
    />
  );
}

const LEFT_OUT = LEAVABLE.map((value) => ({ value, label: LEAVABLE_WORDS[value] }));

/** What a recording is without: chosen here, or as the wider place has it. */
function Without({ place, set }: ValueProps) {
  const own = place.own.recording.leavesOut?.value;
  const wider = inForce(widerThan(place), 'recording', 'leavesOut')?.value ?? [];
  const names = (left: readonly Leavable[]) => left.map((l) => LEAVABLE_WORDS[l]).join(', ') || 'nothing';
  return (
    <MultiSelect
      size="xs"
      w={230}
      styles={{ inputField: { minHeight: 24 } }}
      disabled={!set}
      clearable
      clearButtonProps={{ 'aria-label': `Without, as above: ${place.name}` }}
      aria-label={`Without: ${place.name}`}
      placeholder={own?.length ? '' : `As above: ${names(wider)}`}
      data={LEFT_OUT}
      value={[...(own ?? [])]}
      onChange={(left) => set?.(place, { leavesOut: left.length ? (left as Leavable[]) : null })}
    />
  );
}
