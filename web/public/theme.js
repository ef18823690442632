// Runs before the first paint, so that an evening lesson never flashes white.
const chosen = localStorage.getItem('polite-tally-theme')
if (chosen === 'light' || chosen === 'dark') document.documentElement.dataset.theme = chosen
