const { getDefaultConfig } = require('expo/metro-config');

const config = getDefaultConfig(__dirname);

// In development the client's own server passes /api on to ours, so that both look like one.
const target = { host: '127.0.0.1', port: Number(process.env.PORT ?? 4242) };
config.server.enhanceMiddleware = (metro) => (request, response, next) => {
  if (!request.url?.startsWith('/api')) return metro(request, response, next);
  const http = require('node:http');
  const passed = http.request(
    { ...target, path: request.url, method: request.method, headers: request.headers },
    (answer) => {
      response.writeHead(answer.statusCode ?? 502, answer.headers);
      answer.pipe(response);
    },
  );
  passed.on('error', () => {
    response.writeHead(502, { 'Content-Type': 'application/json' });
    response.end(JSON.stringify({ error: { code: 'no-server', message: 'The server is not running.' } }));
  });
  request.pipe(passed);
};

module.exports = config;
