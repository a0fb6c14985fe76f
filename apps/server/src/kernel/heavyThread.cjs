// A thread has no loader of its own yet: this one reads TypeScript as the server does.
require('tsx/cjs');
require('./heavy.worker.ts');
