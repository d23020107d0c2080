// Pages in tests write as in one region, wherever the tests run.
if (typeof navigator === 'undefined')
  Object.defineProperty(globalThis, 'navigator', { value: { language: 'en-GB' }, configurable: true })
else Object.defineProperty(navigator, 'language', { get: () => 'en-GB', configurable: true })
