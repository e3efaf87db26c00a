/** What is under way that a page which is left now would lose: the browser asks first. */
let pending = 0;
const warn = (event: BeforeUnloadEvent) => event.preventDefault();

function count(by: 1 | -1): void {
  const before = pending;
  pending += by;
  if (typeof addEventListener !== 'function') return;
  if (before === 0) addEventListener('beforeunload', warn);
  if (pending === 0) removeEventListener('beforeunload', warn);
}

/** Does some work; while it is under way, the browser asks before the page is left. */
export async function askFirst<T>(work: () => Promise<T>): Promise<T> {
  count(1);
  try {
    return await work();
  } finally {
    count(-1);
  }
}

/** From now on the browser asks. @returns ends that */
export function asksFirst(): () => void {
  count(1);
  let isOver = false;
  return () => {
    if (!isOver) count(-1);
    isOver = true;
  };
}
