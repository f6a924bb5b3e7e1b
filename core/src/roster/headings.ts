/** What a column of a class list can be. `keep`: a column of the school's own, kept under its heading. */
export type Field = 'name' | 'first' | 'last' | 'email' | 'zone' | 'group' | 'keep' | 'skip';

/** Without accents, capitals and marks, single spaces: so that people and headings are compared by their letters. */
export const folded = (text: string): string =>
  text
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replaceAll('ß', 'ss')
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();

/** Headings as offices write them: English, French, Spanish, Portuguese, German, Dutch, Italian. Folded. */
const WORDS: Record<Exclude<Field, 'keep' | 'skip'>, readonly string[]> = {
  name: [
    ...['name', 'full name', 'student', 'student name', 'display name', 'learner', 'participant', 'person'],
    ...['nom complet', 'nom et prenom', 'etudiant', 'eleve', 'nombre completo', 'alumno', 'alumna'],
    ...['nome completo', 'estudante', 'aluno', 'aluna', 'vollstandiger name', 'schuler', 'teilnehmer'],
    ...['volledige naam', 'naam', 'leerling', 'nome e cognome', 'studente', 'nombre y apellidos'],
  ],
  first: [
    ...['first', 'first name', 'given name', 'given names', 'forename', 'givenname', 'firstname'],
    ...['prenom', 'nombre', 'nome', 'nome proprio', 'vorname', 'voornaam'],
  ],
  last: [
    ...['last', 'last name', 'family name', 'surname', 'familyname', 'lastname'],
    ...['nom', 'nom de famille', 'apellido', 'apellidos', 'apelido', 'apelidos', 'sobrenome'],
    ...['nachname', 'familienname', 'achternaam', 'cognome'],
  ],
  email: [
    ...['e mail', 'email', 'mail', 'address', 'e mail address', 'email address', 'mail address'],
    ...['adresse e mail', 'adresse mail', 'courriel', 'adresse courriel', 'adresse electronique'],
    ...['correo', 'correo electronico', 'direccion de correo', 'correio', 'correio eletronico'],
    ...['endereco de e mail', 'endereco eletronico', 'e mail adresse', 'mailadresse', 'e mailadres'],
    ...['e mailadresse', 'emailadres', 'indirizzo e mail', 'posta elettronica', 'student email'],
  ],
  zone: [
    ...['time zone', 'timezone', 'zone', 'tz', 'fuseau', 'fuseau horaire', 'zona horaria', 'huso horario'],
    ...['fuso', 'fuso horario', 'zeitzone', 'tijdzone', 'fuso orario'],
  ],
  group: [
    ...['group', 'section', 'lab', 'lab group', 'groupe', 'grupo', 'seccion', 'turma', 'gruppe', 'groep'],
    ...['gruppo', 'sezione', 'class group', 'tutorial', 'set'],
  ],
};

const BY_WORD = new Map(
  (Object.entries(WORDS) as [Field, readonly string[]][]).flatMap(([field, words]) =>
    words.map((w) => [w, field] as const),
  ),
);

/** The field that a heading names, in any of the languages known; null where it names none. */
export const fieldOf = (heading: string): Field | null => BY_WORD.get(folded(heading)) ?? null;
