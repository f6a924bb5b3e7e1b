import ICAL from 'ical.js';
import type { Term } from './plan';
import { toEpochDay } from './localDate';
import { changesBetween, offsetAt } from './zone';

/** Of terms whose letters are being written: each asks for the same rules. As text, for a component can be in one calendar only. */
const known = new WeakMap<Term, string>();

/** The zone's rules over the term and a year on either side, each change as an observance of its own (RFC 5545 §3.6.5). */
export function timezoneOf(term: Term): ICAL.Component {
  const rules = known.get(term);
  if (rules) return new ICAL.Component(JSON.parse(rules));
  const zone = rulesOf(term);
  known.set(term, JSON.stringify(zone.jCal));
  return zone;
}

function rulesOf(term: Term): ICAL.Component {
  const from = toEpochDay(term.firstDay) * 86_400_000 - 400 * 86_400_000;
  const to = (toEpochDay(term.lastDay) + 400) * 86_400_000;
  const zone = new ICAL.Component('vtimezone');
  zone.updatePropertyWithValue('tzid', term.zone);
  const start = offsetAt(term.zone, from);
  const changes = [{ at: from, before: start, after: start }, ...changesBetween(term.zone, from, to)];
  for (const change of changes) {
    const observance = new ICAL.Component(change.after > change.before ? 'daylight' : 'standard');
    const local = new Date(change.at + change.before * 60_000).toISOString().slice(0, 19);
    observance.updatePropertyWithValue('dtstart', ICAL.Time.fromDateTimeString(local));
    observance.updatePropertyWithValue('tzoffsetfrom', ICAL.UtcOffset.fromSeconds(change.before * 60));
    observance.updatePropertyWithValue('tzoffsetto', ICAL.UtcOffset.fromSeconds(change.after * 60));
    zone.addSubcomponent(observance);
  }
  return zone;
}
