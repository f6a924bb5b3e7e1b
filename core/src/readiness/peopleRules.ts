import { countWords, dateWords, listWords } from '../calendar/words';
import { toLocalDate } from '../calendar/localDate';
import { teaches } from '../roster/role';
import type { Found, Rule, Setup, SetupPerson } from './finding';

/** Ten is where a class gets hard to follow. */
const SMALL_GROUP = 10;
/** What younger pupils sustain, minutes. */
const YOUNG_MINUTES = 30;

const students = (setup: Setup) => (setup.people ?? []).filter((p) => p.role === 'student');
const names = (people: readonly SetupPerson[]) => {
  const first = people.slice(0, 3).map((p) => p.name);
  return listWords(people.length > 3 ? [...first, countWords(people.length - 3, 'more', 'more')] : first);
};
const groupsOf = (setup: Setup) =>
  new Set(
    [...students(setup).map((p) => p.group), ...setup.series.map((s) => s.group)].filter((g) => g !== null),
  );

const nobody: Rule = {
  id: 'no-students',
  level: 'warns',
  stage: 'class',
  find: (setup) =>
    setup.people && students(setup).length === 0
      ? [
          {
            text: 'Nobody is on the class list yet.',
            fix: { label: 'Go to the class list', fix: { do: 'go', to: 'class' } },
          },
        ]
      : [],
};

const noTeacher: Rule = {
  id: 'no-teacher',
  level: 'stops',
  stage: 'class',
  find: (setup) => {
    if (!setup.people) return [];
    const able = new Set(setup.people.filter((p) => teaches(p.role)).map((p) => p.id));
    return setup.series
      .filter((s) => able.size === 0 || (s.leads.length > 0 && !s.leads.some((id) => able.has(id))))
      .map((s) => ({
        series: s.id,
        key: s.id,
        text: `${s.title} has nobody to teach it: those who led it are not on the class list any more.`,
      }));
  },
};

const largeGroup: Rule = {
  id: 'large-group',
  level: 'warns',
  stage: 'plan',
  find: (setup) =>
    setup.series
      .filter((s) => s.kind === 'group')
      .flatMap((s): Found[] => {
        const size = students(setup).filter((p) => s.group === null || p.group === s.group).length;
        if (size <= SMALL_GROUP) return [];
        return [
          {
            series: s.id,
            key: s.id,
            text: `${s.title} is for a small group, but ${size} are in it: above ${SMALL_GROUP} it gets hard to follow.`,
            fix: { label: 'Split the class anew', fix: { do: 'go', to: 'plan/groups' } },
          },
        ];
      }),
};

const groupWithoutSlot: Rule = {
  id: 'group-without-slot',
  level: 'warns',
  stage: 'plan',
  find: (setup) => {
    const served = new Set(setup.series.map((s) => s.group));
    if (!setup.series.some((s) => s.kind === 'group')) return [];
    return [...groupsOf(setup)]
      .filter((g) => !served.has(g))
      .sort()
      .map((g) => ({
        key: g,
        text: `Group ${g} has no slot: ${names(students(setup).filter((p) => p.group === g))} would miss the group sessions.`,
        fix: { label: 'Give it a slot', fix: { do: 'go' as const, to: 'plan/groups' } },
      }));
  },
};

const studentWithoutGroup: Rule = {
  id: 'student-without-group',
  level: 'warns',
  stage: 'class',
  find: (setup) => {
    const served = [...new Set(setup.series.filter((s) => s.group !== null).map((s) => s.group!))].sort();
    if (!served.length) return [];
    const size = (g: string) => students(setup).filter((p) => p.group === g).length;
    return students(setup)
      .filter((p) => p.group === null)
      .map((p) => {
        const smallest = served.reduce((best, g) => (size(g) < size(best) ? g : best));
        return {
          key: p.id,
          text: `${p.name} is in no group and would miss the group sessions.`,
          fix: {
            label: `Put into group ${smallest}`,
            fix: {
              do: 'edit' as const,
              edit: { edit: 'move-to-group' as const, member: p.id, group: smallest },
            },
          },
        };
      });
  },
};

const emptyGroup: Rule = {
  id: 'empty-group',
  level: 'warns',
  stage: 'plan',
  find: (setup) =>
    setup.people
      ? setup.series
          .filter((s) => s.group !== null && !students(setup).some((p) => p.group === s.group))
          .map((s) => ({
            series: s.id,
            key: s.id,
            text: `${s.title} is for group ${s.group}, but nobody is in it.`,
            fix: {
              label: 'Remove this series',
              fix: { do: 'edit' as const, edit: { edit: 'remove-series' as const, id: s.id } },
            },
          }))
      : [],
};

const youngPupils: Rule = {
  id: 'long-for-young',
  level: 'warns',
  stage: 'plan',
  find: (setup) =>
    setup.youngPupils
      ? setup.series.flatMap((s): Found[] => {
          const ahead = s.sessions.filter((x) => x.state === 'planned' || x.state === 'moved');
          const long = ahead.find((x) => x.endsAt - x.startsAt > YOUNG_MINUTES * 60_000);
          if (!s.pattern || !long) return [];
          return [
            {
              series: s.id,
              key: s.id,
              text: `${s.title} lasts ${(long.endsAt - long.startsAt) / 60_000} minutes; younger pupils sustain about ${YOUNG_MINUTES}.`,
              fix: {
                label: `Shorten all to ${YOUNG_MINUTES} minutes`,
                fix: {
                  do: 'edit',
                  edit: {
                    edit: 'change-session',
                    id: long.id,
                    scope: 'all',
                    change: { do: 'lengthen', minutes: YOUNG_MINUTES },
                  },
                },
              },
            },
          ];
        })
      : [],
};

const notInvited: Rule = {
  id: 'not-invited',
  level: 'warns',
  stage: 'invite',
  find: (setup) => {
    const waiting = students(setup).filter((p) => p.invitedAt === null);
    if (!waiting.length || !setup.series.some((s) => s.published && s.sessions.length)) return [];
    return [
      {
        text: `${names(waiting)} ${waiting.length === 1 ? 'has' : 'have'} no invitation yet.`,
        fix: { label: `Invite ${countWords(waiting.length, 'person', 'people')}`, fix: { do: 'invite' } },
      },
    ];
  },
};

const nothingPublished: Rule = {
  id: 'nothing-published',
  level: 'warns',
  stage: 'invite',
  find: (setup) => {
    if (!setup.series.length || setup.series.some((s) => s.published) || !students(setup).length) return [];
    const invited = students(setup).some((p) => p.invitedAt !== null);
    const ids = setup.series.map((s) => s.id);
    return [
      {
        text: invited
          ? 'Students hold invitations, but no series is published: their pages are empty.'
          : 'The plan is a draft: there is nothing to invite to before it is published.',
        fix: { label: 'Publish the plan', fix: { do: 'edit', edit: { edit: 'publish', ids } } },
      },
    ];
  },
};

const linkReplaced: Rule = {
  id: 'link-replaced',
  level: 'warns',
  stage: 'invite',
  find: (setup) =>
    students(setup)
      .filter((p) => p.invitedAt !== null && p.linkAt !== null && p.linkAt > p.invitedAt)
      .map((p) => ({
        key: p.id,
        text: `${p.name}'s link was replaced on ${dateWords(toLocalDate(Math.floor(p.linkAt! / 86_400_000)))}, after the invitation: the one in it is dead.`,
      })),
};

export const PEOPLE_RULES: readonly Rule[] = [
  nobody,
  noTeacher,
  largeGroup,
  groupWithoutSlot,
  studentWithoutGroup,
  emptyGroup,
  youngPupils,
  notInvited,
  nothingPublished,
  linkReplaced,
];
