/** The context of a canvas, as large as asked for in CSS pixels and sharp on this screen, emptied. */
export function sizedContext(
  canvas: HTMLCanvasElement,
  size: { width: number; height: number },
): CanvasRenderingContext2D {
  const ratio = window.devicePixelRatio || 1;
  const [width, height] = [Math.round(size.width * ratio), Math.round(size.height * ratio)];
  if (canvas.width !== width || canvas.height !== height) {
    canvas.width = width;
    canvas.height = height;
  }
  const context = canvas.getContext('2d')!;
  context.setTransform(ratio, 0, 0, ratio, 0, 0);
  context.clearRect(0, 0, size.width, size.height);
  return context;
}
