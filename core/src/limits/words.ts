import type { Capability, Limits, Permission } from '../api/limits';

/** How a capability is named on a switch, and in a sentence about students. */
export const CAPABILITY_WORDS: Record<Capability, { label: string; doing: string }> = {
  speak: { label: 'Speak', doing: 'Speaking' },
  camera: { label: 'Show themselves', doing: 'Cameras' },
  present: { label: 'Present a screen', doing: 'Presenting' },
  draw: { label: 'Draw on the board', doing: 'Drawing' },
  writeToClass: { label: 'Write to the class', doing: 'Writing to the class' },
  writeToTeachers: { label: 'Write to a teacher', doing: 'Writing to a teacher' },
  writeToStudents: { label: 'Write to one another', doing: 'Writing to one another' },
};

export const PERMISSION_WORDS: Record<Permission, string> = {
  closed: 'Closed',
  byHand: 'By hand',
  open: 'Open',
};

/** "Speaking is now open." as students read it when a limit changes. */
export function changeWords(capability: Capability, state: Permission): string {
  const { doing } = CAPABILITY_WORDS[capability];
  const verb = capability === 'camera' ? 'are' : 'is';
  if (state === 'byHand') return `${doing} ${verb} now by hand: raise yours to ask.`;
  return `${doing} ${verb} now ${state}.`;
}

/** The limits in force as one sentence for each state. */
export function limitsWords(limits: Limits): { state: Permission; doings: string[] }[] {
  return (['open', 'byHand', 'closed'] as const).map((state) => ({
    state,
    doings: (Object.keys(CAPABILITY_WORDS) as Capability[])
      .filter((c) => limits[c] === state)
      .map((c) => CAPABILITY_WORDS[c].label.toLowerCase()),
  }));
}
