export { inventedName } from './names';
export { MOST_STAND_INS, SEEN, standInClass, type StandIn } from './standIns';
export { Mind, PROMPTS, type Act, type Prompt, type Sight } from './behave';
export { ALOUD } from './words';
export { triedIn, type Tried } from './tried';
