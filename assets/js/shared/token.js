// What a teacher's page sends carries a token, so that no other site can press its buttons. Whoever signs in anew, in
// another window, goes on in this one: what it sends is refused with the token that is good now, and is sent once more.
const NAME = "X-CSRF-Token";
const HEADERS = "hx-headers:inherited";

export const headers = () => JSON.parse(document.body.getAttribute(HEADERS));

// @param fresh from an answer's headers
export function renew(fresh) {
  if (!fresh) return false;
  document.body.setAttribute(HEADERS, JSON.stringify({ [NAME]: fresh }));
  for (const field of document.querySelectorAll("[name=authenticity_token]")) field.value = fresh;
  return true;
}

// As fetch does.
export async function send(address, request) {
  const go = () => fetch(address, { ...request, headers: { ...request.headers, ...headers() } });
  const reply = await go();
  return renew(reply.headers.get(NAME)) ? go() : reply;
}

document.addEventListener("htmx:before:request", ({ detail: { ctx } }) => {
  if (ctx.request.method !== "GET") ctx.fetch = send;
});
