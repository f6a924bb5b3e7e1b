import { parentPort, workerData } from 'node:worker_threads';
import { rankMakeUps, type MakeUpQuestion } from '@nimble-bell/core/clashes';

// A thread of its own: the ranking walks every slot of a term over everyone's sessions, and the server goes on answering.
parentPort!.postMessage(rankMakeUps(workerData as MakeUpQuestion));
