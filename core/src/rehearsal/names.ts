const GIVEN = [
  ...[
    'Adaeze',
    'Bram',
    'Celia',
    'Dmitri',
    'Elowen',
    'Farid',
    'Greta',
    'Hamish',
    'Ilse',
    'Jomo',
    'Kirsi',
    'Lior',
  ],
  ...[
    'Mabel',
    'Noor',
    'Osian',
    'Petra',
    'Quentin',
    'Rosalind',
    'Sefa',
    'Tomasz',
    'Una',
    'Viggo',
    'Wanda',
    'Yusuf',
  ],
];
const FAMILY = [
  ...['Abernathy', 'Brandvold', 'Castanho', 'Dunmore', 'Eklund', 'Fontaine', 'Garrow', 'Hollis', 'Iversen'],
  ...['Jardine', 'Kestrel', 'Lanyon', 'Moreau', 'Nakata', 'Okonjo', 'Penhale', 'Quill', 'Ramsay', 'Sandoval'],
];
/** So many invented names differ. */
export const NAMES = GIVEN.length * FAMILY.length;

/** The `index`-th invented person; no two of the first 456 share a name. */
export function inventedName(index: number): string {
  const family = FAMILY[(index * 7 + Math.floor(index / GIVEN.length)) % FAMILY.length];
  return `${GIVEN[index % GIVEN.length]} ${family}`;
}
