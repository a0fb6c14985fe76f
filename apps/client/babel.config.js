module.exports = (api) => {
  const production = api.env('production');
  return {
    presets: ['babel-preset-expo'],
    // Takes from the kit only the parts that are used.
    plugins: production ? ['react-native-paper/babel'] : [],
  };
};
