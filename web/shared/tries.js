// Trying, whatever is tried: one try is under way at a time, the newest one wins, and what is
// answered after it was taken or left is dropped.

/** A line of tries: ask(it) answers or gives null, show(answer) shows it. */
export function tries(ask, show) {
  let wanted = null;
  let flying = false;
  let round = 0;
  async function fly() {
    flying = true;
    while (wanted !== null) {
      const [it, mine] = [wanted, round];
      wanted = null;
      const answer = await ask(it).catch(() => null); // the server can't be reached: nothing is tried
      if (mine === round && answer) show(answer, it);
    }
    flying = false;
  }
  return {
    want(it) {
      wanted = it;
      if (!flying) fly();
    },
    end() {
      round++;
      wanted = null;
    },
  };
}
