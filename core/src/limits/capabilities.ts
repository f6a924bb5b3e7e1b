/** `byHand`: raise a hand, a teacher gives the floor to that one person, and it ends with the turn. */
export const PERMISSIONS = ['closed', 'byHand', 'open'] as const;
export type Permission = (typeof PERMISSIONS)[number];

/** One kind of media that a page sends. */
export type TrackKind = 'sound' | 'camera' | 'screen';

/** The kinds in the order of a publisher's media sections. */
export const TRACK_KINDS: readonly TrackKind[] = ['sound', 'camera', 'screen'];

export interface CapabilityRow {
  group: 'speaking' | 'showing' | 'writing' | 'seeing';
  /** On a switch: "Speak". */
  label: string;
  /** In a sentence about students: "Speaking is closed". */
  doing: string;
  verb: 'is' | 'are';
  /** The states that make sense of it. */
  states: readonly Permission[];
  /** What holds where nobody has said anything. */
  college: Permission;
  /** What hush makes of it; null where hush leaves it as it is. */
  hush: 'closed' | null;
  /** The media that it governs at the relay. */
  media: TrackKind | null;
  /** What a table needs for its work: open there, where nothing else is said of it. */
  table?: true;
  /** It is seldom changed in the middle of a class: it stands on the Limits stage, and not among the switches in class. */
  seldom?: true;
}

const ALL = ['closed', 'byHand', 'open'] as const;
const EITHER = ['closed', 'open'] as const;

/** Everything a student may do in the room: one row each, and nothing about it is written anywhere else. */
export const CAPABILITIES = {
  speak: {
    group: 'speaking',
    label: 'Speak',
    doing: 'Speaking',
    verb: 'is',
    states: ALL,
    college: 'byHand',
    hush: 'closed',
    media: 'sound',
    table: true,
  },
  camera: {
    group: 'showing',
    label: 'Show themselves',
    doing: 'Cameras',
    verb: 'are',
    states: ALL,
    college: 'open',
    hush: 'closed',
    media: 'camera',
    table: true,
  },
  present: {
    group: 'showing',
    label: 'Present a screen',
    doing: 'Presenting',
    verb: 'is',
    states: ALL,
    college: 'closed',
    hush: 'closed',
    media: 'screen',
    table: true,
  },
  draw: {
    group: 'showing',
    label: 'Draw on the board',
    doing: 'Drawing',
    verb: 'is',
    states: ALL,
    college: 'closed',
    hush: 'closed',
    media: null,
    table: true,
  },
  writeToClass: {
    group: 'writing',
    label: 'Write to the class',
    doing: 'Writing to the class',
    verb: 'is',
    states: ALL,
    college: 'open',
    hush: 'closed',
    media: null,
    table: true,
  },
  writeToTeachers: {
    group: 'writing',
    label: 'Write to a teacher',
    doing: 'Writing to a teacher',
    verb: 'is',
    states: ALL,
    college: 'open',
    hush: null,
    media: null,
  },
  writeToStudents: {
    group: 'writing',
    label: 'Write to one another',
    doing: 'Writing to one another',
    verb: 'is',
    states: ALL,
    college: 'closed',
    hush: 'closed',
    media: null,
  },
  attachFiles: {
    group: 'writing',
    label: 'Attach files',
    doing: 'Attaching files',
    verb: 'is',
    states: EITHER,
    college: 'closed',
    hush: 'closed',
    media: null,
    seldom: true,
  },
  writeNotes: {
    group: 'writing',
    label: 'Write in the class notes',
    doing: 'Writing in the class notes',
    verb: 'is',
    states: EITHER,
    college: 'closed',
    hush: 'closed',
    media: null,
    table: true,
    seldom: true,
  },
  react: {
    group: 'showing',
    label: 'Give a sign',
    doing: 'Signs',
    verb: 'are',
    states: EITHER,
    college: 'open',
    hush: null,
    media: null,
    seldom: true,
  },
  rename: {
    group: 'showing',
    label: 'Change their name',
    doing: 'Changing a name',
    verb: 'is',
    states: EITHER,
    college: 'closed',
    hush: null,
    media: null,
    seldom: true,
  },
  seeNames: {
    group: 'seeing',
    label: "See the others' names",
    doing: "The others' names",
    verb: 'are',
    states: EITHER,
    college: 'open',
    hush: null,
    media: null,
    seldom: true,
  },
  seeCameras: {
    group: 'seeing',
    label: "See the others' cameras",
    doing: "The others' cameras",
    verb: 'are',
    states: EITHER,
    college: 'open',
    hush: null,
    media: null,
    seldom: true,
  },
  seeMarks: {
    group: 'seeing',
    label: "See the others' marks",
    doing: "The others' marks",
    verb: 'are',
    states: EITHER,
    college: 'open',
    hush: null,
    media: null,
    seldom: true,
  },
} as const satisfies Record<string, CapabilityRow>;

export type Capability = keyof typeof CAPABILITIES;
export const CAPABILITY_IDS = Object.keys(CAPABILITIES) as [Capability, ...Capability[]];

export const rowOf = (capability: Capability): CapabilityRow => CAPABILITIES[capability];

/** Those that stand in class, to be changed by one press. */
export const IN_CLASS: readonly Capability[] = CAPABILITY_IDS.filter((c) => !rowOf(c).seldom);

/** The capability that governs a kind of media. */
export const capabilityOf = (kind: TrackKind): Capability =>
  CAPABILITY_IDS.find((c) => CAPABILITIES[c].media === kind)!;

/** A state for every capability. */
export type Limits = Record<Capability, Permission>;

/** What holds where nobody has said anything. */
export const COLLEGE_LIMITS = Object.fromEntries(
  CAPABILITY_IDS.map((c) => [c, CAPABILITIES[c].college]),
) as Limits;
