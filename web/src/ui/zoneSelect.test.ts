import { matchingZones } from './ZoneSelect';

const ZONES = Intl.supportedValuesOf('timeZone');
const india = ZONES.find((z) => z === 'Asia/Calcutta' || z === 'Asia/Kolkata')!;
const nepal = ZONES.find((z) => z === 'Asia/Katmandu' || z === 'Asia/Kathmandu')!;

test.each([
  ['kolkata', india],
  ['calcutta', india],
  ['India', india],
  ['Kathmandu', nepal],
  ['nepal', nepal],
  ['São Paulo', 'America/Sao_Paulo'],
  ['new york', 'America/New_York'],
  ['azores', 'Atlantic/Azores'],
])('%s is found', (search, zone) => {
  expect(matchingZones(ZONES, search)).toContain(zone);
});

test('what is nowhere is not found', () => {
  expect(matchingZones(ZONES, 'Atlantis')).toEqual([]);
});
