// The first script of the page, and a small one: it lets the browser paint what stands there already, notes what is
// tapped in it, and only then begins with the app.

declare const SCRIPTS: readonly string[];

const before = document.getElementById('before');

const begin = (): void => {
  for (const address of SCRIPTS) {
    const script = document.createElement('script');
    script.src = address;
    // In their order, whichever comes first.
    script.async = false;
    document.body.append(script);
  }
};

before?.addEventListener('click', (event) => {
  const row = (event.target as Element).closest<HTMLElement>('[data-talk]');
  // Opened in another tab it is the browser's.
  if (!row || event.metaKey || event.ctrlKey || event.shiftKey) return;
  event.preventDefault();
  before.dataset.tapped = row.dataset.talk;
  row.classList.add('tapped');
});

// What nobody sees is never painted: nothing is to be waited for then.
if (before && document.visibilityState === 'visible') {
  // In the frame that paints it: the scripts are there one task later at the soonest, and it is painted by then.
  requestAnimationFrame(begin);
} else begin();
