// The page of a server that is away: lists what is kept, and opens what was asked for as soon as the server answers.
const LOOK = 2000;
const state = document.querySelector('#state');

async function kept() {
  const names = (await caches.keys()).filter((name) => name.startsWith('corvel-pages-'));
  const pages = [];
  for (const name of names) {
    const cache = await caches.open(name);
    for (const request of await cache.keys()) {
      const html = await (await cache.match(request)).text();
      const title = new DOMParser().parseFromString(html, 'text/html').title.replace(/ · Corvel$/, '');
      pages.push({ href: new URL(request.url).pathname, title });
    }
  }
  return pages.reverse();
}

async function list() {
  const pages = await kept();
  const box = document.querySelector('#kept');
  box.hidden = pages.length === 0;
  box.querySelector('ul').replaceChildren(
    ...pages.map(({ href, title }) => {
      const item = document.createElement('li');
      const link = item.appendChild(document.createElement('a'));
      link.href = href;
      link.textContent = title;
      return item;
    })
  );
}

async function look() {
  try {
    const answer = await fetch('/_app/version.json', { cache: 'no-store', signal: AbortSignal.timeout(2500) });
    if (answer.ok) {
      state.textContent = 'Corvel is back.';
      location.reload();
      return;
    }
  } catch {
    // Not yet.
  }
  setTimeout(look, LOOK);
}

void list();
void look();
