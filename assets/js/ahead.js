// Slides of a sitting, fetched while there is a line: the next few, and each that was left, as it is answered now. So one
// can go on and back without a line. Where the browser keeps nothing for pages like ours, they are there until the page is
// left.
const STORE = "roost.sitting";
const NEXT = 5; // slides
const PAUSE = 1000; // milliseconds between two, and up to as much more, so that a class does not ask all at once

const wait = (time) => new Promise((resolve) => setTimeout(resolve, time));

export class Ahead {
  // @param address of the sitting
  constructor(address) {
    this.address = address;
    this.kept = new Map();
  }

  async store() {
    try {
      return window.caches ? await caches.open(STORE) : null;
    } catch {
      return null;
    }
  }

  name(place) {
    return `${this.address}/slides/${place}`;
  }

  // @param places that may be gone to, rising
  // @param here the place one is at
  async look(places, here) {
    const turn = (this.turn = {});
    const store = await this.store();
    if (store && !this.page) {
      this.page = true;
      fetch(location.href).then(
        (page) => page.ok && store.put(location.href, page),
        () => {},
      );
    }
    const left = this.here !== here && places.includes(this.here) ? [this.here] : [];
    this.here = here;
    const [own, first, ...more] = places.filter((place) => place >= here && place <= here + NEXT);
    const fresh = [first, own, ...more].filter((place) => place && !this.kept.has(place));
    for (const place of [...fresh.slice(0, 1), ...left, ...fresh.slice(1)]) {
      await wait(PAUSE * (1 + Math.random()));
      if (this.turn !== turn || !(await this.take(place, store))) return;
    }
  }

  async take(place, store) {
    try {
      const reply = await fetch(this.name(place), { headers: { "HX-Request": "true" } });
      if (!reply.ok) return false;
      if (store) await store.put(this.name(place), reply.clone());
      this.kept.set(place, await reply.text());
      return true;
    } catch {
      return false;
    }
  }

  // @returns the slide at a place, without the time that was left, or null
  async slide(place) {
    const html = this.kept.get(place) ?? (await (await (await this.store())?.match(this.name(place)))?.text());
    return html ? html.replace(/<time-left[^]*?<\/time-left>/, "") : null;
  }

  // Nothing of it is wanted any more.
  async forget() {
    this.turn = {};
    this.kept.clear();
    const store = await this.store();
    for (const request of (await store?.keys()) ?? []) {
      if (request.url.includes(this.address) || request.url === location.href) await store.delete(request);
    }
  }
}
