import type { ReactNode } from 'react';

export interface NodeProps<Node> {
  readonly node: Node;
  /** On a line of its own. */
  readonly display: boolean;
  readonly children?: ReactNode;
}
