import { Loader, Modal, NativeSelect, Stack, Text, Title } from '@mantine/core';
import { memo, useCallback, useMemo, useState, type KeyboardEvent } from 'react';
import type { Capability, Permission, RulesAt, RulesDetail } from '@nimble-bell/core/api';
import { countWords, instantWords } from '@nimble-bell/core/calendar';
import { PERMISSION_WORDS, rowOf, CAPABILITY_IDS, type Rung } from '@nimble-bell/core/limits';
import { useThisCourse } from '../app/course';
import { Choice } from '../ui/Choice';
import { Fault } from '../ui/Fault';
import { Ladder } from '../ui/Ladder';
import { Panel, Scrolls } from '../ui/Panel';
import { PermissionMark } from '../ui/PermissionMark';
import { CapabilityHeads } from './CapabilityHeads';
import { ChosenLine, PlaceHead, useChosen } from './ChosenPlaces';
import { placesOf, rungsOf, stateAt, type Place } from './places';
import { useRules, useSetRules } from './useRules';
import classes from './term.module.css';

interface Opened {
  place: Place;
  capability: Capability;
}

/** The limits of the whole term: what differs from what stands above it is seen at a glance, and set where it stands. */
export function TermPage() {
  const course = useThisCourse();
  const rules = useRules();
  const places = useMemo(() => (rules.data ? placesOf(course, rules.data) : []), [course, rules.data]);
  return (
    <Stack>
      <Title order={1} size="h2">
        Limits of the term
      </Title>
      {rules.error && <Fault error={rules.error} />}
      {!rules.data && !rules.error && <Loader aria-label="Looking for the limits" />}
      {rules.data && <TermGrid rules={rules.data} places={places} mayPlan={course.role === 'teacher'} />}
    </Stack>
  );
}

function TermGrid({ rules, places, mayPlan }: { rules: RulesDetail; places: Place[]; mayPlan: boolean }) {
  const [opened, setOpened] = useState<Opened | null>(null);
  const chosen = useChosen();
  const { together, choose } = chosen;
  const set = useSetRules('It is in force, in a class that is on as well.');
  const { mutate } = set;
  const open = useCallback((place: Place, capability: Capability) => setOpened({ place, capability }), []);
  const sheet = useCallback(
    (place: Place, id: string) => mutate({ at: together(place), sheet: id || null }),
    [mutate, together],
  );
  return (
    <Panel
      title="Session by session"
      about="Framed is said there, marked where it differs from above; the rest holds from above. Choose several sessions to set them together. By keys: Tab goes from line to line, arrows from one to the next."
    >
      <ChosenLine chosen={chosen} />
      <Scrolls label="Limits of the term, scrolls">
        <table className={classes.term}>
          <CapabilityHeads before={HEADS} />
          <tbody onKeyDown={goByArrows}>
            {places.map((place) => (
              <Row
                key={place.key}
                place={place}
                rules={rules}
                chosen={chosen.has(place)}
                mayPlan={mayPlan}
                open={open}
                sheet={sheet}
                choose={choose}
              />
            ))}
          </tbody>
        </table>
      </Scrolls>
      <CellDialog
        opened={opened}
        rules={rules}
        count={opened ? idsOf(together(opened.place)) : 1}
        mayPlan={mayPlan}
        close={() => setOpened(null)}
        set={(state) => {
          const { place, capability } = opened!;
          setOpened(null);
          mutate({ at: together(place), limits: { [capability]: state } });
        }}
      />
    </Panel>
  );
}

const STEPS: Record<string, [across: number, down: number]> = {
  ArrowRight: [1, 0],
  ArrowLeft: [-1, 0],
  ArrowDown: [0, 1],
  ArrowUp: [0, -1],
};

/** From one value to its neighbour: a term has five hundred of them, and Tab goes by lines. */
function goByArrows(event: KeyboardEvent<HTMLTableSectionElement>) {
  const step = STEPS[event.key];
  const cell = (event.target as HTMLElement).closest<HTMLTableCellElement>(
    `button.${classes.cell}`,
  )?.parentElement;
  if (!step || !(cell instanceof HTMLTableCellElement)) return;
  const rows = [...event.currentTarget.rows];
  const row = rows[rows.indexOf(cell.parentElement as HTMLTableRowElement) + step[1]];
  const next = row?.cells[cell.cellIndex + step[0]]?.querySelector<HTMLElement>(`button.${classes.cell}`);
  if (!next) return;
  event.preventDefault();
  next.focus();
}

const idsOf = (at: RulesAt) => (at.layer === 'course' ? 1 : at.ids.length);

const HEADS = ['Where', 'Rule sheet'];

interface RowProps {
  place: Place;
  rules: RulesDetail;
  chosen: boolean;
  mayPlan: boolean;
  open: (place: Place, capability: Capability) => void;
  sheet: (place: Place, id: string) => void;
  choose: (key: string, on: boolean) => void;
}

const Row = memo(function Row({ place, rules, chosen, mayPlan, open, sheet, choose }: RowProps) {
  const { layer } = place.at;
  return (
    <tr data-layer={layer} data-chosen={chosen || undefined}>
      <PlaceHead place={place} chosen={chosen} choose={mayPlan ? choose : null} />
      <td>
        <SheetSelect place={place} rules={rules} mayPlan={mayPlan} onChange={(id) => sheet(place, id)} />
      </td>
      {CAPABILITY_IDS.map((c, i) => {
        const state = stateAt(place.layers, c);
        const differs = state !== stateAt(place.layers.slice(0, -1), c);
        return (
          <td key={c}>
            <button
              type="button"
              className={classes.cell}
              tabIndex={i ? -1 : 0}
              data-own={place.own.limits[c] ? true : undefined}
              data-differs={differs || undefined}
              aria-label={`${rowOf(c).label}, ${place.title}: ${PERMISSION_WORDS[state]}${place.own.limits[c] ? ', said here' : ''}`}
              onClick={() => open(place, c)}
            >
              <PermissionMark state={state} />
              <span>{PERMISSION_WORDS[state]}</span>
            </button>
          </td>
        );
      })}
    </tr>
  );
});

const NUMBERS = ['', 'one differs', 'two differ', 'three differ'];

interface SheetSelectProps {
  place: Place;
  rules: RulesDetail;
  mayPlan: boolean;
  onChange: (id: string) => void;
}

function SheetSelect({ place, rules, mayPlan, onChange }: SheetSelectProps) {
  const { sheet, differ } = place.own;
  return (
    <>
      <NativeSelect
        size="xs"
        w={136}
        disabled={!mayPlan}
        aria-label={`Rule sheet of ${place.title}`}
        value={sheet ?? ''}
        onChange={(e) => onChange(e.currentTarget.value)}
        data={[
          { value: '', label: place.at.layer === 'course' ? 'No sheet' : 'As above' },
          ...rules.sheets.map((s) => ({ value: s.id, label: s.name })),
        ]}
      />
      {differ.length > 0 && (
        <Text size="xs" c="dimmed" ta="left">
          {NUMBERS[differ.length] ?? `${differ.length} differ`}
        </Text>
      )}
    </>
  );
}

interface CellDialogProps {
  opened: Opened | null;
  rules: RulesDetail;
  /** How many places are set with it. */
  count: number;
  mayPlan: boolean;
  close: () => void;
  set: (state: Permission | null) => void;
}

/** One value: why it is so, and what it could be. */
function CellDialog({ opened, rules, count, mayPlan, close, set }: CellDialogProps) {
  const { term } = useThisCourse();
  if (!opened) return null;
  const { place, capability } = opened;
  const said = place.own.limits[capability]?.value ?? null;
  const who = ({ by, at }: Rung) =>
    [by && rules.names[by], at && at > 1 ? instantWords(at, term.zone) : null].filter(Boolean).join(', ');
  const here = count > 1 ? countWords(count, 'session') : place.title;
  return (
    <Modal opened onClose={close} title={`${rowOf(capability).label}: ${here}`} centered>
      <Stack>
        {mayPlan && (
          <Choice
            label={rowOf(capability).label}
            follows={false}
            value={said ?? 'above'}
            onChange={(v) => set(v === 'above' ? null : v)}
            options={[
              ...rowOf(capability).states.map((s) => ({ value: s, label: PERMISSION_WORDS[s] })),
              {
                value: 'above' as const,
                label: place.at.layer === 'course' ? 'As the college' : 'As above',
              },
            ]}
          />
        )}
        <Ladder rungs={rungsOf(place, capability)} who={who} />
      </Stack>
    </Modal>
  );
}
