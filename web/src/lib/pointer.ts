/** Where a pointer is in a drawing, in the units of its viewBox of this width. */
export function placeIn(surface: SVGSVGElement, event: PointerEvent, width: number): [number, number] {
  const box = surface.getBoundingClientRect();
  const scale = width / box.width;
  return [(event.clientX - box.left) * scale, (event.clientY - box.top) * scale];
}
