import { Loader, MultiSelect, NativeSelect, Text } from '@mantine/core';
import { DateInput } from '@mantine/dates';
import { memo, useCallback, useMemo } from 'react';
import type { RulesInput } from '@nimble-bell/core/api';
import { dayWords } from '@nimble-bell/core/calendar';
import { LEAVABLE_WORDS, spaceAhead } from '@nimble-bell/core/recording';
import { inForce, LEAVABLE, type Leavable } from '@nimble-bell/core/settings';
import { useThisCourse } from '../app/course';
import { ChosenLine, PlaceHead, useChosen } from '../limits/ChosenPlaces';
import { placesOf, type Place } from '../limits/places';
import classes from '../limits/term.module.css';
import { useRules, useSetRules } from '../limits/useRules';
import { Panel, Scrolls } from '../ui/Panel';

/** What is on or off. */
type Key = 'automatic' | 'studentsWatch' | 'studentsDownload';
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
                'Recorded by itself',
                'Students watch',
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
        <Switched place={place} of="studentsWatch" set={set} />
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

const LABELS: Record<Key, string> = {
  automatic: 'Recorded by itself',
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
