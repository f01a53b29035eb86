module.exports = {
  dependencies: {
    // The pod did not build with the last Xcode; back in once it does.
    '@cobaltheron.example/react-native': {
      platforms: { ios: null },
    },
  },
};
