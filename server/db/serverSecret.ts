import { eq } from 'drizzle-orm';
import { newSecret } from '../secrets';
import type { Db } from './open';
import { settings } from './schema';

/** The server's own secret: made at the first start, the same ever after. */
export function serverSecret(db: Db): string {
  db.insert(settings).values({ key: 'secret', value: newSecret() }).onConflictDoNothing().run();
  return db.select().from(settings).where(eq(settings.key, 'secret')).get()!.value;
}

export interface HasSecret {
  /** Made at the first start; signs nothing that a person sees. */
  readonly secret: string;
}
