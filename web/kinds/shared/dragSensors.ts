import {
  KeyboardSensor,
  PointerSensor,
  TouchSensor,
  useSensor,
  useSensors,
  type KeyboardCoordinateGetter,
} from '@dnd-kit/core';

/** What may be pressed inside something that is dragged: a drag never begins there. */
export const NO_DRAG = { 'data-no-drag': '' } as const;
/** Where a finger drags at once: elsewhere it scrolls, unless it rests first. */
export const DRAG_HANDLE = { 'data-drag-handle': '' } as const;

const liesIn = (target: EventTarget | null, mark: string): boolean =>
  target instanceof Element && target.closest(`[${mark}]`) !== null;

/** A mouse or pen drags by any place, a finger by the handle. */
class BodySensor extends PointerSensor {
  static override activators = [
    {
      eventName: 'onPointerDown' as const,
      handler: ({ nativeEvent: { isPrimary, button, pointerType, target } }: React.PointerEvent): boolean =>
        isPrimary &&
        button === 0 &&
        !liesIn(target, 'data-no-drag') &&
        (pointerType !== 'touch' || liesIn(target, 'data-drag-handle')),
    },
  ];
}

/** A finger that rests on the thing takes it up; one that moves at once scrolls the page. */
class RestingTouchSensor extends TouchSensor {
  static override activators = [
    {
      eventName: 'onTouchStart' as const,
      handler: ({ nativeEvent: { touches, target } }: React.TouchEvent): boolean =>
        touches.length === 1 && !liesIn(target, 'data-no-drag') && !liesIn(target, 'data-drag-handle'),
    },
  ];
}

/** Pixels that a press may move and still be a press. */
const STILL_PX = 4;
const REST = { delay: 200, tolerance: 8 };

/**
 * Things are dragged by their whole body; a press without a movement stays a press. `byKeys` says where the arrow keys lead
 * from the handle, in lists that are put in order by keys as well.
 */
export const useDragSensors = (byKeys?: KeyboardCoordinateGetter) => {
  const keys = useSensor(KeyboardSensor, byKeys ? { coordinateGetter: byKeys } : {});
  return useSensors(
    useSensor(BodySensor, { activationConstraint: { distance: STILL_PX } }),
    useSensor(RestingTouchSensor, { activationConstraint: REST }),
    byKeys ? keys : null,
  );
};

/** Where it is told already what happens, the library says nothing. */
export const SILENT_DRAGGING = {
  announcements: {
    onDragStart: () => undefined,
    onDragOver: () => undefined,
    onDragEnd: () => undefined,
    onDragCancel: () => undefined,
  },
  screenReaderInstructions: { draggable: '' },
};
