// Loaded before the server in tests: its clock stands so many ms ahead, as after a wait.
const ahead = Number(process.env.CLOCK_AHEAD_MS ?? 0);
const now = Date.now.bind(Date);
Date.now = () => now() + ahead;
