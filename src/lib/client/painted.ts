/** A window that is out of sight paints nothing: nobody waits longer for it than this. */
const MOST_MS = 100;

/** Until the next frame is on the screen. */
export const painted = (): Promise<void> =>
  new Promise((done) => {
    setTimeout(done, MOST_MS);
    requestAnimationFrame(() => setTimeout(done, 0));
  });
