import { useEffect, useState } from 'react';
import { Notice } from '../ui/Notice';
import { words } from '../words';
import type { PageBox } from './pageBox';
import { pagesStillHere } from './sittingPages';
import { useBox } from './useBox';

const t = words('pagesStillHere', {
  left_one: '{{count}} page of your answers is still being sent. Keep this window open until it has arrived.',
  left_other:
    '{{count}} pages of your answers are still being sent. Keep this window open until they have arrived.',
  done: 'All pages of your answers have arrived.',
});

function Left({ box }: { readonly box: PageBox }) {
  useBox(box);
  const count = box.unsent;
  return (
    <div role="status" className="mt-5">
      {count > 0 ? (
        <Notice tone="care">{t('left', { count })}</Notice>
      ) : (
        <p className="text-kelp">{t('done')}</p>
      )}
    </div>
  );
}

/** After the hand-in: pages whose bytes this device has yet to send, in plain sight. */
export function PagesStillHere({ link }: { readonly link: string }) {
  const [boxes, setBoxes] = useState<readonly PageBox[]>([]);
  useEffect(() => {
    let current = true;
    void pagesStillHere(link).then((found) => current && setBoxes(found));
    return () => {
      current = false;
    };
  }, [link]);
  return boxes.map((box, i) => <Left key={i} box={box} />);
}
