import { showTime } from './invitationLetter';
import type { NewLetter } from './outbox';

export interface ReceiptFacts {
  readonly invitationId: number;
  readonly organisation: string;
  readonly title: string;
  readonly person: { readonly name: string; readonly email: string };
  readonly closedAt: number;
  /** The reader's zone where it is known, else the round's. */
  readonly timeZone: string;
  readonly code: string;
  readonly resultBy: number;
  readonly help: string;
}

/** The letter that brings the receipt, once all that was handed in has arrived. */
export function receiptLetter(facts: ReceiptFacts): NewLetter {
  const { person, title, closedAt, timeZone, code, resultBy, organisation, help } = facts;
  const text = `Dear ${person.name},

your paper for “${title}” was handed in on ${showTime(closedAt, timeZone)} and is complete.

Your receipt: ${code}

Keep this code. With it you can check on the page behind your personal link that what is marked is exactly what you handed in. If part of your answers came in later, you may have seen an earlier code; that one stays valid too.

Your result will be available by ${showTime(resultBy, timeZone)}.

${help}

${organisation}
`;
  return {
    ...{ invitationId: facts.invitationId, to: person.email, attachments: [], text },
    subject: `Your receipt: ${title}`,
  };
}
