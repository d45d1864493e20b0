// Tells how wide the window is in which the page is seen, which site led there and in which language it is read, and
// nothing else, unless its reader asks not to be followed.
if (!navigator.globalPrivacyControl && navigator.doNotTrack !== '1') {
  const from = document.referrer && new URL(document.referrer).origin;
  navigator.sendBeacon('/_visits', new URLSearchParams({
    width: Math.round(innerWidth), page: location.pathname + location.search, from, language: navigator.language,
  }));
}
