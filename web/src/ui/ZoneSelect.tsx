import {
  defaultOptionsFilter,
  Select,
  type ComboboxItem,
  type OptionsFilter,
  type SelectProps,
} from '@mantine/core';

/** Names of today for places that the time zone database lists under older ones. */
const ALSO: Record<string, string> = {
  'Asia/Calcutta': 'Kolkata',
  'Asia/Katmandu': 'Kathmandu',
  'Asia/Rangoon': 'Yangon',
  'Asia/Saigon': 'Ho Chi Minh City',
  'Asia/Macao': 'Macau',
  'Asia/Thimbu': 'Thimphu',
  'Asia/Ujung_Pandang': 'Makassar',
  'Asia/Ulan_Bator': 'Ulaanbaatar',
  'Atlantic/Faeroe': 'Faroe, Torshavn',
  'America/Godthab': 'Nuuk, Greenland',
  'Europe/Kiev': 'Kyiv',
  'Pacific/Enderbury': 'Kanton',
  'Pacific/Ponape': 'Pohnpei',
  'Pacific/Truk': 'Chuuk',
};

/** Zones with the countries that they are kept in, worked out once. */
let known: Map<string, string[]> | null = null;
function countriesOf(): Map<string, string[]> {
  if (known) return known;
  known = new Map();
  const names = new Intl.DisplayNames(['en'], { type: 'region', fallback: 'none' });
  const letters = [...'ABCDEFGHIJKLMNOPQRSTUVWXYZ'];
  for (const code of letters.flatMap((a) => letters.map((b) => a + b))) {
    const name = names.of(code);
    if (!name) continue;
    const locale = new Intl.Locale('und', { region: code }) as Intl.Locale & {
      timeZones?: string[];
      getTimeZones?: () => string[] | undefined;
    };
    for (const zone of locale.getTimeZones?.() ?? locale.timeZones ?? [])
      known.set(zone, [...(known.get(zone) ?? []), name]);
  }
  return known;
}

/** What a zone is found by beside its name: today's name of its city, and its countries. */
export const wordsOfZone = (zone: string): string =>
  [zone.replaceAll('_', ' '), ALSO[zone] ?? '', ...(countriesOf().get(zone) ?? [])].join(' ').toLowerCase();

const plain = (text: string) => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();

/** Zones that hold all the words, a city or a country; as many as asked. */
export const matchingZones = (zones: readonly string[], search: string): string[] => {
  const words = plain(search)
    .split(/[\s_/]+/)
    .filter(Boolean);
  return zones.filter((zone) => words.every((w) => plain(wordsOfZone(zone)).includes(w)));
};

const byWords: OptionsFilter = (input) => {
  if (!input.search.trim()) return defaultOptionsFilter(input) as ComboboxItem[];
  const options = input.options as ComboboxItem[];
  const found = new Set(
    matchingZones(
      options.map((o) => o.value),
      input.search,
    ),
  );
  return options.filter((o) => found.has(o.value)).slice(0, input.limit);
};

const labelOf = (zone: string) => (ALSO[zone] ? `${zone} (${ALSO[zone]})` : zone);

/** A time zone by the name of a city or a country. */
export function ZoneSelect({ zones, ...rest }: Omit<SelectProps, 'data'> & { zones: readonly string[] }) {
  return (
    <Select
      searchable
      allowDeselect={false}
      limit={60}
      data={zones.map((zone) => ({ value: zone, label: labelOf(zone) }))}
      filter={byWords}
      nothingFoundMessage="No time zone of that name. Try the next large city, or the country."
      {...rest}
    />
  );
}
