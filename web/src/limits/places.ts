import {
  isStanding,
  type Capability,
  type CourseDetail,
  type Permission,
  type RulesAt,
  type RulesDetail,
  type RulesPlace,
} from '@nimble-bell/core/api';
import { instantWords } from '@nimble-bell/core/calendar';
import { ladderOf, resolve, type Rung } from '@nimble-bell/core/limits';
import { noSettings, type Layer } from '@nimble-bell/core/settings';

/** A place that says nothing. */
export const NOTHING: RulesPlace = {
  sheet: null,
  differ: [],
  limits: {},
  writing: {},
  door: {},
  recording: {},
  segments: null,
};

/** A row of the term: the course, a series, or a session that is still to come. */
export interface Place {
  key: string;
  at: RulesAt;
  title: string;
  /** The title with what it is a part of. */
  name: string;
  own: RulesPlace;
  layers: Layer[];
}

const layer = (name: Layer['name'], { limits, writing, door, recording }: RulesPlace): Layer => ({
  name,
  settings: { ...noSettings(), limits, writing, door, recording },
});

/** The places of a course from the widest to the narrowest, each series before its sessions; those that are over where they are asked for. */
export function placesOf(course: CourseDetail, rules: RulesDetail, { held = false } = {}): Place[] {
  const ofCollege = layer('college', rules.college);
  const ofCourse = layer('course', rules.course);
  const whole: Place = {
    ...{ key: 'course', at: { layer: 'course' }, title: 'The whole course', name: 'The whole course' },
    own: rules.course,
    layers: [ofCollege, ofCourse],
  };
  const ahead = [...course.sessions, ...course.standing].filter(
    (s) => (held || s.state !== 'held') && s.state !== 'cancelled',
  );
  const places: Place[] = [whole];
  for (const series of course.series) {
    const own = rules.series.find((s) => s.id === series.id) ?? NOTHING;
    const ofSeries = layer('series', own);
    places.push({
      ...{
        key: series.id,
        at: { layer: 'series', ids: [series.id] },
        title: series.title,
        name: series.title,
      },
      own,
      layers: [ofCollege, ofCourse, ofSeries],
    });
    for (const session of ahead.filter((s) => s.seriesId === series.id)) {
      const said = rules.sessions.find((s) => s.id === session.id) ?? NOTHING;
      const title = isStanding(session.kind)
        ? 'The room as it stands'
        : instantWords(session.startsAt, course.term.zone);
      places.push({
        ...{ key: session.id, at: { layer: 'session', ids: [session.id] } },
        ...{ title, name: `${series.title}, ${title}` },
        own: said,
        layers: [ofCollege, ofCourse, ofSeries, layer('session', said)],
      });
    }
  }
  return places;
}

export const rungsOf = (place: Place, capability: Capability): Rung[] => ladderOf(place.layers, capability);

export const stateAt = (layers: readonly Layer[], capability: Capability): Permission =>
  resolve(layers, capability).state;
