// @ts-check
// When each step is drawn: so many seconds for all, or so many steps a second; it holds where the program paused.
//
//   const replay = createReplay((steps) => painter.show(steps), () => told("playing began or ended"));
//   replay.take(drawing.pauses, drawing.marks.steps);
//   replay.play();

/** @param {(steps: number, share: number) => void} show @param {() => void} changed told when playing begins or ends */
export function createReplay(show, changed) {
  /** Pairs of a step and the seconds to hold before it. @type {[number, number][]} */
  let holds = [];
  let count = 0;
  const state = { steps: 0, share: 0, isPlaying: false, isLooping: false, stepsPerSecond: 1 };
  let last = 0;
  /** Seconds still to hold before the next step, or -1 when that is not known yet. */
  let held = -1;

  /** @param {number} step */
  function holdBefore(step) {
    let seconds = 0;
    for (const [at, more] of holds) if (at === step) seconds += more;
    return seconds;
  }

  /** @param {number} now */
  function tick(now) {
    if (!state.isPlaying) return;
    const seconds = Math.min((now - last) / 1000, 0.25);
    last = now;
    advance(seconds);
    if (state.isPlaying) requestAnimationFrame(tick);
  }

  /** @param {number} seconds */
  function advance(seconds) {
    let position = state.steps + state.share;
    while (seconds > 0 && position < count) {
      if (held < 0) held = holds.length && position % 1 === 0 ? holdBefore(position) : 0;
      if (held > 0) {
        const waited = Math.min(held, seconds);
        [held, seconds] = [held - waited, seconds - waited];
        if (held > 0) break;
      }
      // On to where the next hold is, or as far as the time goes.
      const next = holds.find(([at]) => at > position)?.[0] ?? count;
      const reached = Math.min(position + seconds * state.stepsPerSecond, next, count);
      seconds -= (reached - position) / state.stepsPerSecond;
      position = reached;
      held = position === next ? -1 : 0;
      if (seconds < 1e-9) break;
    }
    state.steps = Math.floor(position);
    state.share = position - state.steps;
    show(state.steps, state.share);
    if (position < count) return;
    if (state.isLooping) goTo(0);
    else stop();
  }

  function stop() {
    state.isPlaying = false;
    changed();
  }

  /** @param {number} steps */
  function goTo(steps) {
    state.steps = Math.min(Math.max(Math.round(steps), 0), count);
    state.share = 0;
    held = -1;
    show(state.steps, 0);
  }

  return Object.assign(state, {
    goTo,
    /** Another drawing, or one that has grown: at its end if the last one was, else where that one was.
     * @param {[number, number][]} pauses @param {number} wanted how many steps it has */
    take(pauses, wanted) {
      const wasAtEnd = state.steps >= count && !state.isPlaying;
      holds = [...pauses].sort((a, b) => a[0] - b[0]);
      count = wanted;
      if (wasAtEnd || state.steps > count) [state.steps, state.share] = [count, 0];
      held = -1;
    },
    play() {
      if (state.isPlaying || !count) return;
      if (state.steps >= count) goTo(0);
      state.isPlaying = true;
      last = performance.now();
      requestAnimationFrame(tick);
      changed();
    },
    pause() {
      if (state.isPlaying) stop();
    },
  });
}
