/**
 * The largest assignment of things to places where each thing goes to one place and each place takes one thing; gives
 * for each place the thing that it takes, or null. By augmenting paths (H. W. Kuhn, 1955; for unweighted graphs as in
 * J. E. Hopcroft and R. M. Karp, 1973, without their phases).
 */
export function assign(places: number, things: number, fits: (place: number, thing: number) => boolean) {
  const taken = new Array<number | null>(places).fill(null);
  const place = (thing: number, seen: Set<number>): boolean => {
    for (let at = 0; at < places; at++) {
      if (seen.has(at) || !fits(at, thing)) continue;
      seen.add(at);
      const before = taken[at] ?? null;
      if (before !== null && !place(before, seen)) continue;
      taken[at] = thing;
      return true;
    }
    return false;
  };
  for (let thing = 0; thing < things; thing++) place(thing, new Set());
  return taken;
}
