import { Loader, MultiSelect, NativeSelect, NumberInput, Text } from '@mantine/core';
import { DateInput } from '@mantine/dates';
import { memo, useCallback, useMemo, useState } from 'react';
import type { RulesInput } from '@nimble-bell/core/api';
import { dayWords } from '@nimble-bell/core/calendar';
import { beginsWords, endsWords, LEAVABLE_WORDS, spaceAhead } from '@nimble-bell/core/recording';
import { inForce, LEAVABLE, type Leavable } from '@nimble-bell/core/settings';
import { useThisCourse } from '../app/course';
import { ChosenLine, PlaceHead, useChosen } from '../limits/ChosenPlaces';
import { placesOf, type Place } from '../limits/places';
import classes from '../limits/term.module.css';
import { useRules, useSetRules } from '../limits/useRules';
import { Panel, Scrolls } from '../ui/Panel';
import { BEGINS, beginsOf, ENDS } from './choices';

/** What is on or off. */
type Key = 'automatic' | 'studentsWatch' | 'studentsDownload';
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
              {[
                'Where',
                'Recorded',
                'From',
                'To',
                'Students watch',
                'From day',
                'For days',
                'Students download',
                'Kept until',
                'Without',
                'Size, about',
              ].map((head) => (
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

interface RowProps {
  place: Place;
  set: SetIt | null;
  chosen: boolean;
  choose: (key: string, on: boolean) => void;
}

const Row = memo(function Row({ place, set, chosen, choose }: RowProps) {
  const course = useThisCourse();
  const { layer } = place.at;
  const session = layer === 'session' ? course.sessions.find((s) => s.id === place.key) : undefined;
  const automatic = session?.record ?? inForce(place.layers, 'recording', 'automatic')?.value ?? false;
  const { bytes } = spaceAhead(
    session && automatic ? [{ at: session.startsAt, minutes: session.minutes }] : [],
    null,
    Infinity,
  );
  return (
    <tr data-layer={layer} data-chosen={chosen || undefined}>
      <PlaceHead place={place} chosen={chosen} choose={session && set ? choose : null} />
      <td>
        {session ? (
          <Text size="sm">
            {automatic ? 'yes' : 'no'}
            {session.record !== null && ', said in the plan'}
          </Text>
        ) : (
          <Switched place={place} of="automatic" set={set} />
        )}
      </td>
      <td>
        <Moment place={place} of="begins" set={set} />
      </td>
      <td>
        <Moment place={place} of="ends" set={set} />
      </td>
      <td>
        <Switched place={place} of="studentsWatch" set={set} />
      </td>
      <td>
        <Days place={place} of="watchAfterDays" set={set} />
      </td>
      <td>
        <Days place={place} of="watchForDays" set={set} />
      </td>
      <td>
        <Switched place={place} of="studentsDownload" set={set} />
      </td>
      <td>
        <KeptUntil place={place} set={set} />
      </td>
      <td>
        <Without place={place} set={set} />
      </td>
      <td className="figures">{bytes ? `${(bytes / 1e9).toFixed(2)} GB` : ''}</td>
    </tr>
  );
});

interface ValueProps {
  place: Place;
  set: SetIt | null;
}

const yes = (value: boolean | undefined) => (value ? 'yes' : 'no');

/** On, off, or as the wider place has it. */
function Switched({ place, of, set }: ValueProps & { of: Key }) {
  const own = place.own.recording[of]?.value;
  const wider = inForce(place.layers.slice(0, -1), 'recording', of)?.value;
  return (
    <NativeSelect
      size="xs"
      w={128}
      disabled={!set}
      aria-label={`${LABELS[of]}: ${place.name}`}
      value={own === undefined ? '' : yes(own)}
      onChange={({ currentTarget: { value } }) =>
        set?.(place, { [of]: value === '' ? null : value === 'yes' })
      }
      data={[{ value: '', label: `As above: ${yes(wider)}` }, 'yes', 'no']}
    />
  );
}

const MOMENTS = { begins: BEGINS, ends: ENDS };

/** With what it begins or ends, or as the wider place has it. */
function Moment({ place, of, set }: ValueProps & { of: keyof typeof MOMENTS }) {
  const own = place.own.recording[of]?.value;
  const layers = place.layers.slice(0, -1);
  const wider =
    of === 'begins'
      ? beginsWords(inForce(layers, 'recording', of)?.value)
      : endsWords(inForce(layers, 'recording', of)?.value);
  return (
    <NativeSelect
      size="xs"
      w={176}
      disabled={!set}
      aria-label={`${LABELS[of]}: ${place.name}`}
      value={own === undefined ? '' : String(own)}
      onChange={({ currentTarget: { value } }) =>
        set?.(place, {
          [of]: value === '' ? null : of === 'begins' ? beginsOf(value) : value,
        })
      }
      data={[{ value: '', label: `As above: ${wider}` }, ...MOMENTS[of]]}
    />
  );
}

/** So many days; empty is as the wider place has it. Said when the field is left. */
function Days({ place, of, set }: ValueProps & { of: DaysKey }) {
  const own = place.own.recording[of]?.value;
  const wider = inForce(place.layers.slice(0, -1), 'recording', of)?.value ?? 0;
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
  studentsWatch: 'Students watch',
  studentsDownload: 'Students download',
};

function KeptUntil({ place, set }: ValueProps) {
  const own = place.own.recording.keepUntil?.value ?? null;
  const wider = inForce(place.layers.slice(0, -1), 'recording', 'keepUntil')?.value;
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
  const wider = inForce(place.layers.slice(0, -1), 'recording', 'leavesOut')?.value ?? [];
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
