import 'react-image-crop/dist/ReactCrop.css';
import { RotateCw } from 'lucide-react';
import { useEffect, useMemo, useState } from 'react';
import ReactCrop, { type PercentCrop } from 'react-image-crop';
import { turnedPicture, type Crop } from '../pages/pageFile';
import { Button } from '../ui/Button';
import { t } from './words';
import { PageHeading } from '../ui/PageHeading';

interface Props {
  readonly picture: Blob;
  readonly number: number;
  readonly onSend: (picture: Blob, crop: Crop) => void;
  readonly onAgain: () => void;
}

const ALL: PercentCrop = { unit: '%', x: 0, y: 0, width: 100, height: 100 };
/** A tap beside the frame leaves nothing: then all of the picture is meant. */
const shareOf = ({ x, y, width, height }: PercentCrop): Crop =>
  width < 5 || height < 5
    ? { x: 0, y: 0, width: 1, height: 1 }
    : { x: x / 100, y: y / 100, width: width / 100, height: height / 100 };

function useAddress(picture: Blob): string {
  const address = useMemo(() => URL.createObjectURL(picture), [picture]);
  useEffect(() => () => URL.revokeObjectURL(address), [address]);
  return address;
}

/** A picture that was taken: its edges are cut off and it is turned before it is sent. */
export function LookAtPage({ picture, number, onSend, onAgain }: Props) {
  const [own, setOwn] = useState(picture);
  const [crop, setCrop] = useState<PercentCrop>(ALL);
  const address = useAddress(own);
  const turn = async () => {
    setOwn(await turnedPicture(own));
    setCrop(ALL);
  };
  return (
    <main className="flex min-h-0 flex-1 flex-col px-4 pt-4">
      <PageHeading className="font-serif text-[1.35rem] font-semibold">{t('look')}</PageHeading>
      <p className="text-[0.95rem] text-soft">{t('lookHelp')}</p>
      <div className="grid min-h-0 flex-1 place-items-center overflow-hidden py-3">
        <ReactCrop
          crop={crop}
          onChange={(_, percent) => setCrop(percent)}
          ariaLabels={{
            cropArea: t('part'),
            nwDragHandle: t('part'),
            nDragHandle: t('part'),
            neDragHandle: t('part'),
            eDragHandle: t('part'),
            seDragHandle: t('part'),
            sDragHandle: t('part'),
            swDragHandle: t('part'),
            wDragHandle: t('part'),
          }}
          className="max-h-[58dvh]"
        >
          <img src={address} alt={t('picture')} className="max-h-[58dvh]" />
        </ReactCrop>
      </div>
      <div className="-mx-4 flex flex-wrap gap-2.5 border-t border-line bg-card px-4 py-3">
        <Button className="min-h-12" onClick={() => void turn()}>
          <RotateCw aria-hidden className="size-5" /> {t('turn')}
        </Button>
        <Button className="min-h-12" onClick={onAgain}>
          {t('again')}
        </Button>
        <Button look="first" className="min-h-12 flex-1" onClick={() => onSend(own, shareOf(crop))}>
          {t('send', { number })}
        </Button>
      </div>
    </main>
  );
}
