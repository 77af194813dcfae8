/** Where a pointer is in a drawing, in the units of its viewBox of this width. */
export function placeIn(surface: SVGSVGElement, event: PointerEvent, width: number): [number, number] {
  const box = surface.getBoundingClientRect();
  const scale = width / box.width;
  return [(event.clientX - box.left) * scale, (event.clientY - box.top) * scale];
}

type Pulled = PointerEvent & { currentTarget: Element };

/** Handlers of a drawing that follows a held pointer; `go` hears where it is, in pixels of the drawing. */
export function pulled(go: (x: number, y: number) => void) {
  let held = false;
  const tell = (event: Pulled) => {
    const box = event.currentTarget.getBoundingClientRect();
    go(event.clientX - box.left, event.clientY - box.top);
  };
  const release = () => (held = false);
  return {
    onpointerdown(event: Pulled) {
      held = true;
      event.currentTarget.setPointerCapture(event.pointerId);
      tell(event);
    },
    onpointermove(event: Pulled) {
      if (held) tell(event);
    },
    onpointerup: release,
    onpointercancel: release,
  };
}
