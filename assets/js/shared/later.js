// Libraries that few pages need, in bundles of their own: the head names their scripts, and styles, and one is fetched
// when something first asks for it.
const fetched = new Map();

// @param name of a meta element
// @returns {Promise<*>} what its script leaves in window.roost[name]; refused where it can't be fetched, and tried again
//   when it is asked for next
export const fetchLibrary = (name) => {
  if (!fetched.has(name)) {
    const coming = new Promise((resolve, reject) => {
      const [src, ...sheets] = document.querySelector(`meta[name=${name}]`).content.split(" ");
      const script = Object.assign(document.createElement("script"), { src, onerror: reject });
      script.onload = () => resolve(window.roost[name]);
      document.head.append(
        ...sheets.map((href) => Object.assign(document.createElement("link"), { rel: "stylesheet", href })),
        script,
      );
    });
    coming.catch(() => fetched.delete(name));
    fetched.set(name, coming);
  }
  return fetched.get(name);
};
