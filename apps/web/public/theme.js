// Before the first paint, so that night shift does not flash the day sheet.
try {
  const kept = localStorage.getItem('quarry-theme');
  const night = kept ? kept === 'night' : matchMedia('(prefers-color-scheme: dark)').matches;
  document.documentElement.dataset.theme = night ? 'night' : 'day';
} catch {
  document.documentElement.dataset.theme = 'day';
}
