import { FileText } from 'lucide-react';
import { useState } from 'react';
import type { Page } from '../../core/files/pages';
import type { LoadedPage } from './pageSource';

interface Props {
  readonly page: Page;
  readonly loaded: LoadedPage & { readonly is: 'here' };
  readonly description: string;
  /** As high as the picture itself, rather than as a sheet of paper. */
  readonly natural?: boolean;
}

/** Width by height of a sheet of paper, as it is drawn. */
const SHEET = 3 / 4;

/** A page upright as it was turned, fitted into its place. */
export function PagePicture({ page, loaded, description, natural = false }: Props) {
  const [own, setOwn] = useState(SHEET);
  const lies = page.turn % 180 !== 0;
  const ratio = !natural ? SHEET : lies ? 1 / own : own;
  if (page.type === 'application/pdf')
    return (
      <span
        style={{ aspectRatio: SHEET }}
        className="flex w-full flex-col items-center justify-center gap-1.5 text-soft"
      >
        <FileText aria-hidden className="size-9" strokeWidth={1.4} />
        <span className="text-[0.85rem]">PDF</span>
        <span className="sr-only">{description}</span>
      </span>
    );
  return (
    <span style={{ aspectRatio: ratio }} className="relative block w-full overflow-hidden">
      <img
        src={loaded.address}
        alt={description}
        draggable={false}
        onLoad={({ currentTarget: { naturalWidth, naturalHeight } }) => setOwn(naturalWidth / naturalHeight)}
        className="absolute top-1/2 left-1/2 max-w-none object-contain"
        style={{
          // Turned by a quarter, its width lies along the height of its place.
          width: lies ? `${100 / ratio}%` : '100%',
          height: lies ? `${100 * ratio}%` : '100%',
          transform: `translate(-50%, -50%) rotate(${page.turn}deg)`,
        }}
      />
    </span>
  );
}
