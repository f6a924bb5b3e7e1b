import { Select, Stack, Text, Title } from '@mantine/core';
import { useElementSize } from '@mantine/hooks';
import { axisLeft, axisTop, line, scaleLinear, scaleTime, select, timeFormat, type ScaleTime } from 'd3';
import { useEffect, useRef, useState } from 'react';
import {
  dateWords,
  durationWords,
  timeWords,
  zoneBands,
  zoneWords,
  type ZoneBand,
} from '@nimble-bell/core/calendar';
import { useThisCourse } from '../app/course';
import { Findings } from '../ui/Findings';
import { Empty, Panel } from '../ui/Panel';
import classes from './zones.module.css';

const HEIGHT = 360;
const MARGIN = { top: 26, right: 150, bottom: 8, left: 48 };

/** What hour it is for each part of the class, session by session, and where the clocks drift apart. */
export function ZonesPage() {
  const course = useThisCourse();
  const dated = course.series.filter((s) => s.pattern);
  const [chosen, setChosen] = useState<string | null>(null);
  const series = dated.find((s) => s.id === chosen) ?? dated[0];
  const { zone: home } = course.term;
  const sessions = course.sessions.filter((s) => s.seriesId === series?.id && s.state !== 'cancelled');
  const people = new Map(course.zones.map((z) => [z.zone, z.people]));
  const zones = [...new Set([home, ...people.keys()])].map((zone) => ({
    zone,
    people: people.get(zone) ?? 0,
  }));
  const bands = zoneBands(home, zones, sessions);
  const findings = course.findings.filter(
    (f) => f.series === series?.id && ['zone-drift', 'zone-shift', 'unsociable-hour'].includes(f.rule),
  );
  return (
    <Stack>
      <Title order={1} size="h2">
        By everyone’s clock
      </Title>
      {!series || !bands[0]?.hours.length ? (
        <Empty>There is no session to show yet.</Empty>
      ) : (
        <Panel
          title={series.title}
          about={`Each line is a zone of the class list. Home is ${zoneWords(home)}.`}
          action={
            <Select
              aria-label="Series"
              data={dated.map((s) => ({ value: s.id, label: s.title }))}
              value={series.id}
              onChange={setChosen}
              allowDeselect={false}
            />
          }
        >
          <BandChart bands={bands} home={home} />
          <Findings course={course} findings={findings} />
          <Table bands={bands} home={home} />
        </Panel>
      )}
    </Stack>
  );
}

interface Chart {
  bands: ZoneBand[];
  home: string;
}

function BandChart({ bands, home }: Chart) {
  const { ref, width } = useElementSize();
  const hours = bands[0]!.hours;
  const [first, last] = [hours[0]!.startsAt, hours.at(-1)!.startsAt];
  const x = scaleTime(
    [new Date(first - 86_400_000), new Date(last + 86_400_000)],
    [MARGIN.left, width - MARGIN.right],
  );
  const minutes = bands.flatMap((b) => b.hours.map((h) => h.minutes));
  const from = Math.max(0, Math.floor(Math.min(...minutes) / 60) - 2) * 60;
  const to = Math.min(24, Math.ceil(Math.max(...minutes) / 60) + 2) * 60;
  const y = scaleLinear([from, to], [MARGIN.top, HEIGHT - MARGIN.bottom]);
  const drifting = driftSpans(bands);
  const path = line<{ startsAt: number; minutes: number }>()
    .x((h) => x(new Date(h.startsAt)))
    .y((h) => y(h.minutes));
  return (
    <div ref={ref}>
      {width > 0 && (
        <svg
          width={width}
          height={HEIGHT}
          role="img"
          aria-label="The local hour of each session in each zone"
        >
          <Night y={y} x0={MARGIN.left} x1={width - MARGIN.right} />
          {drifting.map(([from, to]) => (
            <Drift key={from} from={from} x={x} to={to} />
          ))}
          <Axes x={x} y={y} />
          {bands.map((band) => (
            <g key={band.zone} className={classes.band} data-home={band.zone === home || undefined}>
              <path d={path(band.hours) ?? ''} />
              {band.hours.map((h) => (
                <circle
                  key={h.startsAt}
                  cx={x(new Date(h.startsAt))}
                  cy={y(h.minutes)}
                  r={h.drift ? 4.5 : 3}
                  data-hour={h.hour}
                  data-drift={h.drift || undefined}
                >
                  <title>{`${zoneWords(band.zone)}: ${dateWords(h.date)} ${timeWords(h.minutes)}`}</title>
                </circle>
              ))}
            </g>
          ))}
          <Labels bands={bands} y={y} x={width - MARGIN.right + 8} home={home} />
        </svg>
      )}
    </div>
  );
}

/** The hours in which nobody should have class. */
function Night({ y, x0, x1 }: { y: ReturnType<typeof scaleLinear<number>>; x0: number; x1: number }) {
  return [
    [0, 360],
    [1380, 1440],
  ].map(([from, to]) => (
    <rect
      key={from}
      x={x0}
      width={x1 - x0}
      y={y(from!)}
      height={y(to!) - y(from!)}
      className={classes.night}
    />
  ));
}

function Axes({
  x,
  y,
}: {
  x: ReturnType<typeof scaleTime<number>>;
  y: ReturnType<typeof scaleLinear<number>>;
}) {
  const top = useRef<SVGGElement>(null);
  const left = useRef<SVGGElement>(null);
  useEffect(() => {
    const format = timeFormat('%-d %b');
    select(top.current!).call(
      axisTop<Date>(x as never)
        .ticks(7)
        .tickFormat((d) => format(d)),
    );
    select(left.current!).call(
      axisLeft(y)
        .tickValues(
          Array.from({ length: 25 }, (_, h) => h * 60).filter(
            (m) => m >= y.domain()[0]! && m <= y.domain()[1]! && m % 120 === 0,
          ),
        )
        .tickFormat((m) => (m === 1440 ? '24:00' : timeWords(Number(m)))),
    );
  });
  return (
    <>
      <g ref={top} transform={`translate(0,${MARGIN.top})`} className={classes.axis} />
      <g ref={left} transform={`translate(${MARGIN.left},0)`} className={classes.axis} />
    </>
  );
}

/** The zones' names at the right, pushed apart where lines end close together. */
function Labels({ bands, y, x, home }: Chart & { y: (m: number) => number; x: number }) {
  const placed = [...bands]
    .map((b) => ({ band: b, at: y(b.hours.at(-1)!.minutes) }))
    .sort((a, b) => a.at - b.at);
  for (let i = 1; i < placed.length; i++) placed[i]!.at = Math.max(placed[i]!.at, placed[i - 1]!.at + 16);
  return placed.map(({ band, at }) => (
    <text key={band.zone} x={x} y={at + 4} className={band.zone === home ? classes.homeLabel : classes.label}>
      {zoneWords(band.zone)} {band.people > 0 && `(${band.people})`}
    </text>
  ));
}

/** Stretches in which some zone is not at its usual distance. */
function driftSpans(bands: ZoneBand[]): [number, number][] {
  const spans: [number, number][] = [];
  let open: [number, number] | null = null;
  for (const [i, { startsAt }] of bands[0]!.hours.entries()) {
    if (bands.some((b) => b.hours[i]!.drift !== 0)) {
      if (open) open[1] = startsAt;
      else spans.push((open = [startsAt, startsAt]));
    } else open = null;
  }
  return spans;
}

/** The same in words, a line for each zone and each session that drifts, for those who cannot use the picture. */
function Table({ bands, home }: Chart) {
  return (
    <div className={classes.words}>
      {bands.map((b) => {
        const usual = b.hours.find((h) => h.drift === 0) ?? b.hours[0]!;
        const drifted = b.hours.filter((h) => h.drift !== 0);
        const [shift] = b.shifts;
        const later = shift && b.hours.find((h) => h.startsAt === shift.startsAt)!;
        return (
          <div key={b.zone}>
            <Text size="sm">
              <strong>{zoneWords(b.zone)}</strong>
              {b.zone === home ? ' (home)' : ''}: {timeWords(usual.minutes)}
              {usual.dayShift !== 0 && (usual.dayShift > 0 ? ' the day after' : ' the day before')}
              {later && `; from ${dateWords(later.date)} on ${timeWords(later.minutes)}`}.
            </Text>
            {drifted.map((h) => (
              <Text size="sm" key={h.startsAt} className={classes.warning} data-testid="drift">
                {dateWords(h.date)}: {timeWords(h.minutes)}, {durationWords(Math.abs(h.drift))}{' '}
                {h.drift > 0 ? 'later' : 'earlier'} than usual.
              </Text>
            ))}
          </div>
        );
      })}
    </div>
  );
}

/** A span in which clocks differ from what they are for most of the term. */
function Drift({ from, x, to }: { from: number; x: ScaleTime<number, number, never>; to: number }) {
  return (
    <g>
      <rect
        x={x(new Date(from)) - 5}
        width={x(new Date(to)) - x(new Date(from)) + 10}
        y={MARGIN.top}
        height={HEIGHT - MARGIN.top - MARGIN.bottom}
        className={classes.drift}
      />
      <text x={x(new Date(from))} y={HEIGHT - 14} className={classes.driftLabel}>
        clocks differ
      </text>
    </g>
  );
}
