/* Seeds the demo's data folder once; `--print` then tells the address, the sign-ins and the links. */
import { existsSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { readConfig } from '../server/config';
import { wire } from '../server/wire';
import {
  invitedLater,
  invitedToCounting,
  invitedToEntrance,
  invitedNow,
  invitedToEvening,
  invitedToSupervised,
  missedOctober,
  releasedInOctober,
  staffMembers,
} from './people';
import { linkOf } from './linkOf';
import { demoPage } from './page';
import { seedDemo } from './seed';

const config = readConfig(process.env);
const fresh = !existsSync(path.join(config.dataFolder, 'clear-sitting.sqlite'));
const wired = wire(config, 'warn');
const { close } = wired;
const without = (what: string) => process.argv.includes(`--without-${what}`);
if (fresh)
  await seedDemo(wired, { scripts: !without('scripts'), cohort: !without('cohort') && !without('scripts') });

// Where the server is to run as the demo, its front page reads this.
if (config.demoFile !== null) writeFileSync(config.demoFile, JSON.stringify(demoPage));

const say = (label: string, email: string, round?: string) => {
  const link = linkOf(wired.services, email, round);
  if (link) console.log(`  ${label.padEnd(46)} ${link}`);
};
console.log(
  `\nClear Sitting – the demo of the ${config.organisation}\n\n  ${config.publicUrl}\n\nStaff sign in with`,
);
for (const { email, password, roles } of staffMembers)
  console.log(`  ${roles.join(' and ').padEnd(18)} ${email.padEnd(30)} ${password}`);
console.log('\nCandidates open their links');
for (const { name, email, extraPercent } of invitedNow)
  say(`${name}${extraPercent ? `, ${extraPercent} % extra time` : ''}, may begin`, email);
say(`${invitedToCounting[0]!.name}, three attempts`, invitedToCounting[0]!.email, 'counting-check');
say(`${invitedToEvening[0]!.name}, waits for the door code`, invitedToEvening[0]!.email);
say(`${invitedToSupervised[0]!.name}, is admitted by hand`, invitedToSupervised[0]!.email);
say(`${invitedToEntrance[0]!.name}, Field School entrance`, invitedToEntrance[0]!.email);
say(`${invitedToEntrance[1]!.name}, with transcripts`, invitedToEntrance[1]!.email);
say(`${invitedLater[0]!.name}, too early`, invitedLater[0]!.email);
say(`${missedOctober[0]!.name}, too late`, missedOctober[0]!.email);
say(`${releasedInOctober[1]!.name}, has a result`, releasedInOctober[1]!.email);
console.log('');
await close();
