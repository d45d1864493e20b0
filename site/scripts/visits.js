// Tells how wide the window is in which the page is seen, and nothing else, unless its owner asks not to be followed.
if (!navigator.globalPrivacyControl && navigator.doNotTrack !== '1') {
  navigator.sendBeacon('/_visits', new URLSearchParams({ width: Math.round(innerWidth), page: location.pathname }));
}
