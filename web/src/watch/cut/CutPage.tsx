import { Button, Checkbox, Group, Loader, MultiSelect, Stack, Text, Title } from '@mantine/core';
import { useEffect, useRef, useState } from 'react';
import { Link, useParams } from 'react-router';
import type { CutTable } from '@nimble-bell/core/api';
import {
  cutsAnything,
  leavesSomething,
  lengthTold,
  outAfter,
  outBefore,
  snapped,
  splitAt,
  stretchAt,
  toldBy,
  type Fate,
  type Mark,
} from '@nimble-bell/core/recording';
import { useAsk } from '../../app/api';
import { stopOf, useAsked, useChange } from '../../app/queries';
import { useAbout } from '../../app/title';
import { Fault } from '../../ui/Fault';
import { Panel } from '../../ui/Panel';
import { Film } from '../film/Film';
import { useMedia, type Film as FilmActions } from '../film/useMedia';
import { lengthWords, preparingWords } from '../words';
import { History } from './History';
import { StretchBar, Stretches } from './Stretches';
import { useDraft, type Draft } from './useDraft';
import classes from './cut.module.css';

/** What is told of a recording: stretches of what was recorded, which stays as it is, heard and seen as they will be. */
export function CutPage() {
  const { recording: id } = useParams();
  const table = useAsked<CutTable>(`/recordings/${id}/cuts`, {
    every: (known) => (known?.state === 'preparing' ? 1500 : 0),
  });
  useAbout(table.data?.whole.title);
  const stop = stopOf(table);
  if (stop) return <Fault error={stop} />;
  if (!table.data) return <Loader m={60} aria-label="Loading the recording" />;
  if (table.data.whole.state !== 'ready') return <Text>{preparingWords(table.data.whole)}</Text>;
  return <Cutting table={table.data} />;
}

function Cutting({ table }: { table: CutTable }) {
  const { whole } = table;
  const draft = useDraft(table);
  const { element, film } = useMedia();
  const { marks } = draft.cut;
  const [position, setPosition] = useState(0);
  const fate = marks[stretchAt(marks, position)]!.fate;
  const at = useAsTold(film, { marks, lengthMs: whole.lengthMs, fate, setPosition });
  const goTo = (ms: number) => {
    film.seek(ms);
    film.play();
  };
  const shown = { marks, lengthMs: whole.lengthMs, position, goTo };
  return (
    <Stack className={classes.page} data-unseen={fate === 'unseen'}>
      <Head table={table} />
      <div>
        <Film
          {...{ element, film, position, goTo, at }}
          recording={whole}
          stood={() => {}}
          note={() => {}}
          resumed={null}
          from={`/recordings/${whole.id}/cuts`}
        />
        <StretchBar {...shown} />
        <Group mt="xs" justify="space-between">
          <Steps {...{ film, whole, draft }} />
          <Told {...{ table, draft }} />
        </Group>
      </div>
      <Panel title="What becomes of each stretch">
        <Stretches {...shown} change={(next: Mark[]) => draft.change({ marks: next })} />
        {table.people.length > 0 && <Nobody {...{ table, draft }} />}
      </Panel>
      <History table={table} drop={draft.drop} />
    </Stack>
  );
}

interface AsTold {
  marks: readonly Mark[];
  lengthMs: number;
  fate: Fate;
  setPosition: (ms: number) => void;
}

/** It is heard as it will be: over what is left out, and without sound where there is none. */
function useAsTold(film: FilmActions, { marks, lengthMs, fate, setPosition }: AsTold) {
  useEffect(() => film.hush(fate === 'silent'), [film, fate]);
  return (ms: number) => {
    setPosition(ms);
    if (film.paused() || marks[stretchAt(marks, ms)]!.fate !== 'out') return;
    const next = toldBy(marks, lengthMs).find((s) => s.from > ms);
    if (next) film.seek(next.from);
    else film.toggle();
  };
}

/** What is done at the moment where the film is, or in the silence that is near it. */
function Steps({ film, whole, draft }: { film: FilmActions; whole: CutTable['whole']; draft: Draft }) {
  const [near, setNear] = useState(true);
  const step = (of: (marks: readonly Mark[], at: number, lengthMs: number) => Mark[]) => () => {
    const at = near ? snapped(whole.silences, film.now()) : film.now();
    draft.change({ marks: of(draft.cut.marks, at, whole.lengthMs) });
  };
  const divide = step(splitAt);
  useDivideKey(divide);
  return (
    <Group gap="xs">
      <Button variant="default" onClick={divide}>
        Divide here (X)
      </Button>
      <Button variant="default" onClick={step(outBefore)}>
        Leave out all before
      </Button>
      <Button variant="default" onClick={step(outAfter)}>
        Leave out all after
      </Button>
      <Checkbox
        label="In the nearest silence"
        checked={near}
        onChange={(e) => setNear(e.currentTarget.checked)}
      />
      <Button variant="subtle" disabled={!draft.back} onClick={() => draft.back?.()}>
        A step back
      </Button>
    </Group>
  );
}

function Head({ table: { whole, state, progress, inForce } }: { table: CutTable }) {
  return (
    <Group justify="space-between" align="flex-end">
      <div>
        <Title order={1} size="h2">
          Cut: {whole.title}
        </Title>
        <Text c="dimmed">
          What was recorded stays as it is. What you leave out is in nothing that anybody watches, finds or
          takes along.
        </Text>
        {inForce !== null && state !== 'ready' && (
          <Text role="status">{preparingWords({ state, progress })}. Until then nobody watches it.</Text>
        )}
      </div>
      <Button component={Link} to={`/course/${useParams().course}/watch/${whole.id}`} variant="subtle">
        Watch it as it is told
      </Button>
    </Group>
  );
}

/** How much is told, and the step that makes it so. */
function Told({ table: { whole, inForce }, draft }: { table: CutTable; draft: Draft }) {
  const ask = useAsk();
  const { marks, nobody } = draft.cut;
  const save = useChange(
    () =>
      ask(`/recordings/${whole.id}/${cutsAnything(draft.cut) ? 'cuts' : 'cuts/in-force'}`, 'PUT', {
        ...(cutsAnything(draft.cut) ? { marks, nobody } : { number: null }),
        after: inForce,
      }).then(draft.drop),
    () => 'It is cut. As soon as it is made, it is watched so.',
  );
  const told = lengthTold(toldBy(marks, whole.lengthMs));
  const something = leavesSomething(marks, whole.lengthMs);
  return (
    <Group>
      <Text size="sm" className="figures">
        {lengthWords(told)} of {lengthWords(whole.lengthMs)}
        {!something && ': nothing is left'}
      </Text>
      <Button
        disabled={!draft.changed || !something}
        loading={save.isPending}
        onClick={() => save.mutate(undefined)}
      >
        Cut it so
      </Button>
    </Group>
  );
}

/** Those who are nobody in it. */
const Nobody = ({ table, draft }: { table: CutTable; draft: Draft }) => (
  <MultiSelect
    mt="sm"
    maw={520}
    label="Nobody by name"
    description="Their names and what they wrote are not told. What they said is heard, until you leave it out or silence it."
    placeholder={draft.cut.nobody.length ? '' : 'Students of this class'}
    data={table.people.map((p) => ({ value: p.id, label: p.name }))}
    value={draft.cut.nobody}
    onChange={(nobody) => draft.change({ nobody })}
    searchable
    styles={{ inputField: { minHeight: 24 } }}
  />
);

/** X divides, wherever nothing is typed. */
function useDivideKey(divide: () => void) {
  const latest = useRef(divide);
  useEffect(() => {
    latest.current = divide;
  });
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (e.key !== 'x' || e.ctrlKey || e.metaKey || e.altKey) return;
      if ((e.target as Element).closest?.('input, textarea, select, [role=dialog]')) return;
      latest.current();
      e.preventDefault();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
}
