// What a page keeps on the device. Where storage is switched off or full, it is kept only until
// the page is left: `works` says which.
const memory = new Map();

const storage = (() => {
  try {
    localStorage.setItem("roost.works", "1");
    localStorage.removeItem("roost.works");
    return localStorage;
  } catch {
    return null;
  }
})();

export const works = storage !== null;

export function get(key) {
  if (memory.has(key)) return memory.get(key);
  try {
    return JSON.parse(storage?.getItem(key) ?? "null");
  } catch {
    return null;
  }
}

// Whether it will still be here when the page has been left.
export function set(key, value) {
  try {
    storage.setItem(key, JSON.stringify(value));
    memory.delete(key);
    return true;
  } catch {
    memory.set(key, value);
    return false;
  }
}

export function remove(key) {
  memory.delete(key);
  try {
    storage?.removeItem(key);
  } catch {
    /* then it is not there */
  }
}

// Keys that begin with this.
export function keys(beginning) {
  const all = new Set(memory.keys());
  for (let place = 0; place < (storage?.length ?? 0); place += 1) all.add(storage.key(place));
  return [...all].filter((key) => key.startsWith(beginning));
}
