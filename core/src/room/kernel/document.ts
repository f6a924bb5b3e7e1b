import { COMMAND_SCHEMAS, EVENT_SCHEMAS, type CommandType, type EventType } from './messages';
import { COMMANDS, CONCERNS, EVENTS } from './registry';

const fieldsOf = (schema: { shape: object }) =>
  Object.keys(schema.shape)
    .filter((key) => key !== 'type')
    .map((key) => `\`${key}\``)
    .join(', ');

const row = (...cells: string[]) => `| ${cells.join(' | ')} |`;

function commandRow(type: CommandType): string {
  const { who, phase, needs } = COMMANDS[type];
  return row(
    `\`${type}\``,
    fieldsOf(COMMAND_SCHEMAS[type]),
    who === 'teaching' ? 'who teaches' : needs ? 'whom the limits let' : 'anyone in the room',
    phase === 'live' ? 'in class' : 'before it as well',
  );
}

function eventRow(type: EventType): string {
  const { version } = EVENTS[type];
  const heededBy = CONCERNS.filter((c) => c.heeds && type in c.heeds).map((c) => c.name);
  return row(`\`${type}\``, String(version), fieldsOf(EVENT_SCHEMAS[type]), heededBy.join(', '));
}

/** The list of commands and events, concern by concern, as Markdown. */
export function documentOfRoom(): string {
  const parts = CONCERNS.map((c) => {
    const commands = Object.keys(c.commands) as CommandType[];
    const events = Object.keys(c.events) as EventType[];
    return [
      `## ${c.name}`,
      ...(commands.length
        ? [
            [
              row('command', 'with', 'given by', 'when'),
              row('---', '---', '---', '---'),
              ...commands.map(commandRow),
            ].join('\n'),
          ]
        : []),
      ...(events.length
        ? [
            [
              row('event', 'version', 'with', 'heeded by'),
              row('---', '---', '---', '---'),
              ...events.map(eventRow),
            ].join('\n'),
          ]
        : []),
      ...(c.due ? ['Something here happens by itself, when its time comes.'] : []),
    ].join('\n\n');
  });
  const head =
    '# The room’s commands and events\n\nWritten by `npm run events` from the registry (`core/src/room/kernel/registry.ts`); not by hand.';
  return `${[head, ...parts].join('\n\n')}\n`;
}
