import type { EventType } from './messages';

/**
 * Events as they were stored in each version, one of every version and type. A sample is never changed: what was stored
 * must be read for as long as recordings are kept. A new version adds its own.
 */
export const SAMPLES: readonly { version: number; body: { type: EventType } & Record<string, unknown> }[] = [
  {
    version: 1,
    body: {
      type: 'opened',
      kind: 'class',
      times: { startsAt: 0, endsAt: 4_800_000, lingerMinutes: 10 },
      layers: [
        {
          name: 'course',
          settings: {
            limits: { speak: { value: 'byHand', by: 'maren', at: 1 } },
            door: { teacherFirst: { value: true, by: null, at: null } },
            recording: { automatic: { value: true, by: 'maren', at: 1 } },
            runSheet: {},
          },
        },
      ],
    },
  },
  {
    version: 1,
    body: {
      type: 'settingsChanged',
      by: 'maren',
      layer: 'course',
      settings: { limits: {}, door: {}, recording: {}, runSheet: {} },
    },
  },
  { version: 1, body: { type: 'replanned', times: { startsAt: 0, endsAt: 1, lingerMinutes: 0 } } },
  { version: 1, body: { type: 'rangIn', by: 'maren' } },
  { version: 1, body: { type: 'dismissed', by: null } },
  { version: 1, body: { type: 'interrupted', from: 1000 } },
  {
    version: 1,
    body: { type: 'entered', member: 'ana', name: 'Ana Lanyon', role: 'student', grants: ['speak'] },
  },
  {
    version: 2,
    body: { type: 'entered', member: 'ana', name: 'Ana Lanyon', role: 'student', place: 'class' },
  },
  { version: 1, body: { type: 'left', member: 'ana' } },
  { version: 1, body: { type: 'known', member: 'ana', name: 'Ana L.', role: 'assistant' } },
  { version: 1, body: { type: 'limitSet', by: 'maren', capability: 'speak', state: 'open' } },
  { version: 1, body: { type: 'recordingAnswered', member: 'ana', agrees: false } },
  { version: 1, body: { type: 'lingerBegan' } },
  { version: 1, body: { type: 'hushed', by: 'maren' } },
  { version: 1, body: { type: 'limitLent', by: 'maren', capability: 'writeToClass', until: 60_000 } },
  { version: 1, body: { type: 'lentBack', by: null, capability: 'writeToClass' } },
  { version: 1, body: { type: 'lifted', by: 'maren' } },
  { version: 1, body: { type: 'floorGiven', by: 'maren', member: 'ana' } },
  { version: 1, body: { type: 'floorTaken', by: 'maren', member: 'ana' } },
  { version: 1, body: { type: 'handRaised', member: 'ana' } },
  { version: 1, body: { type: 'signGiven', member: 'ana', sign: 'lost' } },
  { version: 1, body: { type: 'handLowered', by: 'ana', member: 'ana' } },
  { version: 1, body: { type: 'microphone', member: 'ana', on: true } },
  { version: 1, body: { type: 'camera', member: 'ana', on: false } },
  { version: 1, body: { type: 'askedOn', by: 'maren', member: 'ana' } },
  { version: 1, body: { type: 'muted', by: 'maren', member: null } },
  { version: 1, body: { type: 'presenting', member: 'ana', on: true } },
  { version: 2, body: { type: 'presenting', member: 'ana', on: true, place: 'class' } },
  { version: 1, body: { type: 'said', from: 'ana', addressee: { to: 'teachers' }, text: 'I am lost' } },
  {
    version: 2,
    body: { type: 'said', from: 'ana', addressee: { to: 'class' }, text: 'Thank you', place: 'class' },
  },
  { version: 1, body: { type: 'drawn', by: 'ana', stroke: { points: [0, 0, 1, 1], colour: 'ink' } } },
  {
    version: 2,
    body: { type: 'drawn', by: 'ana', stroke: { points: [0, 0, 1, 1], colour: 'ink' }, place: 'class' },
  },
  {
    version: 1,
    body: {
      type: 'textPut',
      by: 'ana',
      text: { text: 'High water 14:10', at: [0.1, 0.1], colour: 'ink' },
      place: 'class',
    },
  },
  { version: 1, body: { type: 'boardCleared', by: 'maren' } },
  { version: 2, body: { type: 'boardCleared', by: 'maren', place: 'class' } },
  { version: 1, body: { type: 'locked', by: 'maren' } },
  { version: 1, body: { type: 'unlocked', by: 'maren' } },
  { version: 1, body: { type: 'knocked', member: 'ben', name: 'Ben Garrow', role: 'student' } },
  { version: 1, body: { type: 'pagesChanged', member: 'ana', pages: 2 } },
  { version: 1, body: { type: 'renamed', by: 'maren', member: 'ana', name: 'Ana Lanyon' } },
  { version: 1, body: { type: 'calledIn', member: 'ana' } },
  { version: 1, body: { type: 'hungUp', member: 'ana' } },
  { version: 1, body: { type: 'knockEnded', member: 'ben' } },
  { version: 1, body: { type: 'admitted', by: 'maren', members: ['ben'] } },
  { version: 1, body: { type: 'turnedAway', by: 'maren', members: ['ben'], word: 'Come on Thursday.' } },
  { version: 1, body: { type: 'porchTold', by: 'maren', text: 'In a moment.' } },
  { version: 1, body: { type: 'sentOut', by: 'maren', member: 'ana', back: 'knocks', reason: 'Noise' } },
  { version: 1, body: { type: 'takenBack', by: 'maren', member: 'ana' } },
  {
    version: 1,
    body: {
      type: 'excepted',
      by: 'maren',
      member: 'ana',
      capability: 'present',
      state: 'open',
      until: 86_400_000,
    },
  },
  {
    version: 1,
    body: { type: 'exceptionEnded', by: null, member: 'ana', capability: 'present', state: 'open' },
  },
  {
    version: 1,
    body: {
      type: 'cued',
      by: 'maren',
      index: 0,
      segment: { title: 'Lecture', minutes: 35, limits: { speak: 'byHand' }, recording: 'on' },
      changes: { speak: 'byHand' },
    },
  },
  { version: 1, body: { type: 'clockTaken', by: 'maren', on: true } },
  { version: 1, body: { type: 'leftPlanned', by: 'maren', segments: [] } },
  { version: 1, body: { type: 'recordingStarted', by: null } },
  { version: 1, body: { type: 'recordingPaused', by: 'maren' } },
  { version: 1, body: { type: 'recordingResumed', by: 'maren' } },
  { version: 1, body: { type: 'recordingNarrowed', to: 'sound' } },
];
