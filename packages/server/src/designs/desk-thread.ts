/** What a desk's thread does. */
import { parentPort } from 'node:worker_threads';
import { Desk, type Answer, type Task } from './desk.ts';

const desk = new Desk();

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
    console.error(error);
  }
  parentPort!.postMessage(answer);
});
