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
  const request = input instanceof Request ? input : null;
  if (!first || first.answers.size === 0 || request?.method !== 'GET') return fetch(input, init);
  const { pathname, search } = new URL(request.url);
  const address = pathname + search;
  const answer = first.answers.get(address);
  if (Date.now() - first.at > FRESH_MS) first.answers.clear();
  else first.answers.delete(address);
  // What failed on its way is asked anew, as anything else is.
  return answer && Date.now() - first.at <= FRESH_MS ? answer.catch(() => fetch(input, init)) : fetch(input, init);
};
