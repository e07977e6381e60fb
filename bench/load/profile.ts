/*
 * Reads a processor profile of the server (`npm run load -- --profile`) and tells where its time went: by function
 * (self) and by what of ours was at work (inclusive).
 */
import { readFileSync, readdirSync, statSync } from 'node:fs';
import path from 'node:path';

interface ProfileNode {
  readonly id: number;
  readonly callFrame: { readonly functionName: string; readonly url: string; readonly lineNumber: number };
  readonly children?: readonly number[];
}
interface Profile {
  readonly nodes: readonly ProfileNode[];
  readonly samples: readonly number[];
  readonly timeDeltas: readonly number[];
}

export interface Share {
  readonly what: string;
  readonly ms: number;
  readonly share: number;
}

const nameOf = ({ callFrame: { functionName, url } }: ProfileNode) => {
  const place = url.replace(/^.*\/(?=(core|server|node_modules)\/)/, '').replace(/^file:\/\//, '');
  return `${functionName || '(nameless)'} ${place}`.trim();
};

const top = (times: Map<string, number>, all: number, count: number): Share[] =>
  [...times]
    .sort((a, b) => b[1] - a[1])
    .slice(0, count)
    .map(([what, us]) => ({ what, ms: Math.round(us / 1000), share: Math.round((1000 * us) / all) / 1000 }));

/** Where the busy time of a profile went; idle time is left out. */
export function readProfile(folder: string, count = 25) {
  // Worker threads write profiles of their own; the server's is the largest.
  const files = readdirSync(folder).map((file) => path.join(folder, file));
  const file = files.sort((a, b) => statSync(b).size - statSync(a).size)[0]!;
  const { nodes, samples, timeDeltas } = JSON.parse(readFileSync(file, 'utf8')) as Profile;
  const byId = new Map(nodes.map((node) => [node.id, node]));
  const parents = new Map(nodes.flatMap((node) => (node.children ?? []).map((child) => [child, node.id])));
  const own = new Map<string, number>();
  const within = new Map<string, number>();
  let busy = 0;
  const add = (to: Map<string, number>, key: string, us: number) => to.set(key, (to.get(key) ?? 0) + us);
  samples.forEach((sample, n) => {
    const us = timeDeltas[n]!;
    const node = byId.get(sample)!;
    if (['(idle)', '(program)'].includes(node.callFrame.functionName)) return;
    busy += us;
    add(own, nameOf(node), us);
    const seen = new Set<string>();
    for (let at: number | undefined = sample; at !== undefined; at = parents.get(at)) {
      const name = nameOf(byId.get(at)!);
      if (!seen.has(name)) add(within, name, us);
      seen.add(name);
    }
  });
  return {
    busySeconds: Math.round(busy / 1e6),
    own: top(own, busy, count),
    within: top(within, busy, count * 3),
  };
}

if (process.argv[1] === import.meta.filename)
  console.log(JSON.stringify(readProfile(process.argv[2]!), null, 1));
