/** What the page's first script asked beside the code (`first/first.js`), by its address. */
interface FirstAnswers {
  answers: Map<string, Promise<Response>>;
  at: number;
}

/** A view that comes later than this asks for itself, ms. */
const FRESH_MS = 15_000;

/** Fetches; what the page's first script asked already is taken from there, once. */
export const firstOrFetch: typeof fetch = (input, init) => {
  const first = (globalThis as { evenBedFirst?: FirstAnswers }).evenBedFirst;
  if (!first || first.answers.size === 0 || !(input instanceof Request)) return fetch(input, init);
  // After a write, a signing in among them, what was asked before it is old.
  if (input.method !== 'GET' || Date.now() - first.at > FRESH_MS) first.answers.clear();
  const { pathname, search } = new URL(input.url);
  const answer = first.answers.get(pathname + search);
  if (!answer) return fetch(input, init);
  first.answers.delete(pathname + search);
  // What failed on its way or was refused is asked anew, as anything else is.
  const anew = () => fetch(input, init);
  return answer.then((response) => (response.ok ? response : anew()), anew);
};
