import axe from 'axe-core';

/** What axe finds wrong, by its rule; colours need a real browser. */
export async function faultsOf(container: Element): Promise<string[]> {
  const rules = { 'color-contrast': { enabled: false }, region: { enabled: false } };
  const { violations } = await axe.run(container, { rules });
  return violations.map(({ id }) => id);
}
