import { adsSoFar, countAd } from '../src/store/firings';

test('counts what was shown', () => {
  countAd();
  expect(adsSoFar()).toBe(1);
});
