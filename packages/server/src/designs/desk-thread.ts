/** What a desk's thread does. */
import { pino } from 'pino';
import { parentPort } from 'node:worker_threads';
import { Desk, type Answer, type Task } from './desk.ts';

const desk = new Desk();
const log = pino();

const FAULT: Answer = {
  is: 'refused',
  status: 500,
  message: 'The server met a fault of its own in working this out; nothing was changed.',
};

parentPort!.on('message', (task: Task) => {
  let answer: Answer = FAULT;
  try {
    answer = desk.do(task);
  } catch (error) {
    log.error({ err: error, task: task.kind }, 'a task failed');
  }
  parentPort!.postMessage(answer);
});
