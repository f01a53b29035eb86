module.exports = {
  presets: ['module:@react-native/babel-preset'],
};
