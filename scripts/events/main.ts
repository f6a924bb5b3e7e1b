import { writeFileSync } from 'node:fs';
import { documentOfRoom } from '@nimble-bell/core/room';

writeFileSync('docs/room-events.md', documentOfRoom());
