import { Minus, Plus, X } from 'lucide-react';
import { Dialog } from 'radix-ui';
import { useRef } from 'react';
import { TransformComponent, TransformWrapper, type ReactZoomPanPinchRef } from 'react-zoom-pan-pinch';
import { Button } from '../ui/Button';
import { t } from './words';

const STEP_PX = 60;
const MOST = 8;

interface Props {
  readonly address: string;
  readonly description: string;
  readonly title: string;
  /** How far it is turned clockwise, in degrees. */
  readonly turn?: number;
  readonly onClose: () => void;
}

/** Moves and zooms by keys what the wheel, fingers and the pointer move and zoom. */
function press(view: ReactZoomPanPinchRef | null, event: React.KeyboardEvent): void {
  if (!view) return;
  const { positionX, positionY, scale } = view.state;
  const move = (x: number, y: number) =>
    view.setTransform(positionX + x * STEP_PX, positionY + y * STEP_PX, scale, 0);
  const acts: Record<string, () => unknown> = {
    ArrowLeft: () => move(1, 0),
    ArrowRight: () => move(-1, 0),
    ArrowUp: () => move(0, 1),
    ArrowDown: () => move(0, -1),
    '+': () => view.zoomIn(0.5, 0),
    '=': () => view.zoomIn(0.5, 0),
    '-': () => view.zoomOut(0.5, 0),
    '0': () => view.resetTransform(0),
  };
  const act = acts[event.key];
  if (!act) return;
  event.preventDefault();
  act();
}

/** A picture over the whole page: by wheel, fingers, pointer and keys. */
export function LargePicture({ address, description, title, turn = 0, onClose }: Props) {
  const view = useRef<ReactZoomPanPinchRef>(null);
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-ink/40" />
        <Dialog.Content
          aria-describedby={undefined}
          onKeyDown={(event) => press(view.current, event)}
          className="fixed inset-2 z-50 flex flex-col rounded-card border border-line bg-card shadow-float desk:inset-6"
        >
          <div className="flex flex-wrap items-center gap-2 border-b border-line px-4 py-2">
            <Dialog.Title className="min-w-0 flex-1 basis-full font-semibold desk:basis-0">
              {title}
            </Dialog.Title>
            <Button look="quiet" aria-label={t('zoomOut')} onClick={() => void view.current?.zoomOut(0.5, 0)}>
              <Minus aria-hidden className="size-5" />
            </Button>
            <Button look="quiet" aria-label={t('zoomIn')} onClick={() => void view.current?.zoomIn(0.5, 0)}>
              <Plus aria-hidden className="size-5" />
            </Button>
            <Button onClick={() => void view.current?.resetTransform(0)}>{t('fit')}</Button>
            <Dialog.Close asChild>
              <Button aria-label={t('close')}>
                <X aria-hidden className="size-5" />
              </Button>
            </Dialog.Close>
          </div>
          <div
            role="group"
            tabIndex={0}
            aria-label={`${description} ${t('moveKeys')}`}
            className="min-h-0 flex-1 overflow-hidden"
          >
            <TransformWrapper
              ref={view}
              maxScale={MOST}
              centerOnInit
              doubleClick={{ mode: 'toggle' }}
              wheel={{ step: 0.2 }}
            >
              <TransformComponent wrapperClass="h-full! w-full!" contentClass="h-full! w-full!">
                <img
                  src={address}
                  alt={description}
                  style={turn === 0 ? undefined : { transform: `rotate(${turn}deg)` }}
                  className="m-auto max-h-full max-w-full"
                />
              </TransformComponent>
            </TransformWrapper>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
