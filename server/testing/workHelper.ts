import { serveTasks } from '../helpers/serveTasks';

/* A helper for tests: works for ever, says something back, or says what it was asked so far. */
const asked: string[] = [];
serveTasks({
  spin: () => {
    for (;;);
  },
  note: (what: string) => {
    asked.push(what);
    return asked;
  },
});
