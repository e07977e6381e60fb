/** Gives up the rights of root, where this process has them, for a user to whom nothing belongs. */
export function becomeNobody(user: number): boolean {
  if (process.getuid?.() !== 0) return false;
  process.setgroups!([]);
  process.setgid!(user);
  process.setuid!(user);
  return true;
}
