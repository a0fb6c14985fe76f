// The first script of the page. It asks for what the first view needs beside the app's code, and not after it: the piece of
// code that draws the view, and what the view shows. The app takes each answer when it comes to ask (`src/api/firstAnswers`).
(() => {
  // Which scripts draw which address: written in by the build, the more particular address first.
  const PIECES = [];
  // What views ask, as they ask it: an answer that nobody takes is let go of. The first that fits counts.
  const ASKED = [
    ['/(?:floor|rack)/(?:new|list)', []],
    ['/bench', ['/level-checks?state=open', '/surfaces?state=on-hold&limit=50', '/machines']],
    ['/floor', ['/machines']],
    ['/floor/([^/]+)', ['/machines/$1', '/machines/$1/stack', '/level-checks?machineId=$1&state=ended&limit=24']],
    ['/floor/([^/]+)/edit', ['/machines/$1', '/areas']],
    ['/rack', ['/surfaces', '/places']],
    ['/rack/([^/]+)', ['/surfaces/$1']],
    ['/prints', ['/prints?limit=20', '/print-lists']],
    ['/book', ['/book?limit=40', '/machines', '/people']],
    ['/jobs', ['/procedures', '/machines']],
    ['/tools', ['/plans', '/machines']],
  ];
  // Nobody is known here, or the device is locked: then there is nothing to ask but who it is.
  const known = () => {
    try {
      const { person, lockedHere } = JSON.parse(localStorage.getItem('even-bed/device/people'));
      return person !== null && !lockedHere;
    } catch {
      return false;
    }
  };
  const somebody = known();
  const path = location.pathname === '/' ? '/bench' : location.pathname.replace(/\/$/, '');
  const of = (pattern) => new RegExp(`^${pattern}$`).exec(path);
  const [, pieces] = PIECES.find(([pattern]) => of(pattern)) ?? [];
  for (const href of (somebody && pieces) || []) {
    const link = document.createElement('link');
    Object.assign(link, { rel: 'preload', as: 'script', href });
    document.head.append(link);
  }
  const [pattern, addresses] = ASKED.find(([known]) => of(known)) ?? ['', []];
  const asked = addresses.map((address) => address.replaceAll('$1', of(pattern)[1]));
  const answers = new Map();
  for (const address of ['/session', ...(somebody ? ['/jobs?open=true', ...asked] : [])]) {
    const answer = fetch(`/api${address}`);
    // A failure is told to whoever takes it.
    answer.catch(() => undefined);
    answers.set(`/api${address}`, answer);
  }
  window.evenBedFirst = { answers, at: Date.now() };
})();
