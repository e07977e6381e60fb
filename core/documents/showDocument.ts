import type { Block, Document } from './document';

/** A block as one candidate may see it: what is said in a recording is not told to those who are to hear it. */
function showBlock(block: Block, transcripts: boolean): Block {
  const inside = (blocks: readonly Block[]) => blocks.map((one) => showBlock(one, transcripts));
  switch (block.type) {
    case 'audio':
      return transcripts
        ? { type: 'transcript', title: block.title, blocks: inside(block.transcript ?? []) }
        : { ...block, transcript: null };
    case 'list':
      return { ...block, items: block.items.map(inside) };
    case 'quote':
    case 'language':
    case 'transcript':
      return { ...block, blocks: inside(block.blocks) };
    default:
      return block;
  }
}

/** A text as a candidate gets it, with sound or, by arrangement, with its transcript in its place. */
export const showDocument = (document: Document, transcripts: boolean): Document => ({
  ...document,
  blocks: document.blocks.map((block) => showBlock(block, transcripts)),
});
