import { parentPort, workerData } from 'node:worker_threads';
import { makeUps, type MakeUpQuestion } from '@nimble-bell/core/clashes';

const { question, week } = workerData as { question: MakeUpQuestion; week: string | null };

// A thread of its own: the ranking walks every slot of a term over everyone's sessions, and the server goes on answering.
parentPort!.postMessage(makeUps(question, week));
