/** Does something once what has just been drawn is on the screen; the way to call it off comes back. */
export function afterPaint(action: () => void): () => void {
  let timer = 0;
  const frame = requestAnimationFrame(() => (timer = window.setTimeout(action)));
  return () => {
    cancelAnimationFrame(frame);
    window.clearTimeout(timer);
  };
}
