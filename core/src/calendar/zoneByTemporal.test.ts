import { Temporal } from 'temporal-polyfill';

/** Minutes east of UTC as the platform's words have them: "GMT+05:30". */
function byWords(zone: string, instant: number): number {
  const words = new Intl.DateTimeFormat('en-US', { timeZone: zone, timeZoneName: 'longOffset' })
    .formatToParts(instant)
    .find(({ type }) => type === 'timeZoneName')!.value;
  const [, sign, hours = 0, minutes = 0] = /^GMT(?:([+-])(\d\d):(\d\d))?$/.exec(words)!;
  return (sign === '-' ? -1 : 1) * (Number(hours) * 60 + Number(minutes));
}

test('a platform with Temporal is asked by it, makes no clock, and has the same offsets', async () => {
  Object.assign(globalThis, { Temporal });
  const { offsetAt } = await import('./zone');
  const clocks = jest.spyOn(Intl, 'DateTimeFormat');
  const zones = [
    'America/Halifax',
    'Asia/Kathmandu',
    'Australia/Lord_Howe',
    'Pacific/Apia',
    'Africa/Casablanca',
  ];
  const instants = Array.from({ length: 300 }, (_, i) => Date.UTC(2011, 0, 1) + i * 19 * 86_400_000);
  const found = zones.map((zone) => instants.map((instant) => offsetAt(zone, instant)));
  // The polyfill stands on a clock for each zone; ours on none beside.
  expect(clocks.mock.calls.filter(([, options]) => options?.hourCycle === 'h23')).toEqual([]);
  clocks.mockRestore();
  expect(found).toEqual(zones.map((zone) => instants.map((instant) => byWords(zone, instant))));
});
