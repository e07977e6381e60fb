/* Seeds the demo into a fresh database and prints the links of three invited candidates, as JSON. */
import { invitedNow, invitedToEntrance, invitedToKinds } from '../demo/people';
import { linkOf } from '../demo/linkOf';
import { seedDemo } from '../demo/seed';
import { readConfig } from '../server/config';
import { wire } from '../server/wire';

const scripts = process.argv.includes('--scripts');
const wired = wire(readConfig(process.env), 'fatal');
const { close } = wired;
await seedDemo(wired, { scripts, cohort: false });
// November's scripts are scored by jobs.
if (scripts) await wired.services.jobs.turn();
console.log(
  JSON.stringify(
    [invitedNow, invitedToEntrance, invitedToKinds].map((invited) =>
      linkOf(wired.services, invited[0]!.email),
    ),
  ),
);
await close();
