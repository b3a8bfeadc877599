// Slides of a sitting, fetched while there is a line: the next few, and each that was left, as it is answered now. So one
// can go on and back without a line. Where the browser keeps nothing for pages like ours, they are there until the page is
// left.
import { addressFor } from "./pictures.js";
import * as storage from "../shared/storage.js";
import { say } from "../shared/say.js";

const TOLD = "roost.pictures.told";
const STORE = "roost.sitting";
const NEXT = 10; // slides
const MOST_PICTURES = 60;
const ROOM = 20e6; // bytes of pictures
const PAUSE = 1000; // milliseconds between two, and up to as much more, so that a class does not ask all at once

const wait = (time) => new Promise((resolve) => setTimeout(resolve, time));

export class Ahead {
  // @param address of the sitting
  constructor(address) {
    this.address = address;
    this.kept = new Map();
    this.pictures = new Set();
    this.room = ROOM;
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
      if (reply.status !== 200) return false; // or there is nothing to keep
      if (store) await store.put(this.name(place), reply.clone());
      const html = await reply.text();
      this.kept.set(place, html);
      if (store) await this.takePictures(html, store);
      return true;
    } catch {
      return false;
    }
  }

  // Pictures of a slide in the width this device shows them in, as long as there is room. Said once.
  async takePictures(html, store) {
    const page = new DOMParser().parseFromString(html, "text/html");
    for (const element of page.querySelectorAll("[data-src]:not([data-ahead])")) {
      const address = addressFor(element);
      if (this.pictures.has(address) || this.pictures.size >= MOST_PICTURES || this.room <= 0) continue;
      this.pictures.add(address);
      const picture = await fetch(address, { priority: "low" }).catch(() => null);
      if (!picture?.ok) continue;
      this.room -= Number(picture.headers.get("content-length") ?? 100_000);
      await store.put(address, picture).catch(() => {});
      if (storage.get(TOLD)) continue;
      storage.set(TOLD, true);
      say("The next slides and their pictures are kept on this device, so that you can continue without a connection.");
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
