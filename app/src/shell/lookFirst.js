// the look is known before the first paint, so that a dark hall stays dark
try {
  const kept = localStorage.getItem('mantine-color-scheme-value');
  const dark = kept === 'dark' || (kept !== 'light' && matchMedia('(prefers-color-scheme: dark)').matches);
  document.documentElement.setAttribute('data-mantine-color-scheme', dark ? 'dark' : 'light');
  document.documentElement.style.background = dark ? '#1e2326' : '#f4f1ea';
} catch {
  // no storage, no wish
}
