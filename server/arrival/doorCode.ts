import { createHmac } from 'node:crypto';

/** Short words that are clear when read out in a hall or on the phone. */
const WORDS = [
  ...['RUSH', 'KALE', 'MOSS', 'FERN', 'REED', 'THYME', 'SEDGE', 'HAZEL', 'BIRCH', 'CLOVER', 'BARLEY'],
  ...['POPPY', 'SORREL', 'YARROW', 'THRIFT', 'HOLLY', 'ASTER', 'BROOM', 'HEATH', 'LUPIN', 'TANSY', 'VETCH'],
];

/** Staff see the code from this long before the opening. */
export const DOOR_CODE_SHOWN_MS = 5 * 60_000;

/** The door code of a round: “RUSH 41”. It follows from the server's secret and is stored nowhere. */
export function doorCodeOf(secret: string, roundId: number): string {
  const bytes = createHmac('sha256', secret).update(`door ${roundId}`).digest();
  return `${WORDS[bytes.readUInt16BE(0) % WORDS.length]} ${10 + (bytes.readUInt16BE(2) % 90)}`;
}

const plain = (code: string) => code.toUpperCase().replace(/[^A-Z0-9]/g, '');

/** Case, spaces and dashes do not matter to a nervous person. */
export const sameDoorCode = (given: string, code: string): boolean => plain(given) === plain(code);
