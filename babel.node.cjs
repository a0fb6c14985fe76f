// For tests that run in Node: TypeScript away, ES modules to CommonJS.
module.exports = {
  presets: [['@babel/preset-env', { targets: { node: '20' } }], '@babel/preset-typescript'],
};
