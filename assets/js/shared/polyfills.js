// What browsers of a few years ago do not have, and a child's phone may be one.

// A signal that ends a request after so many milliseconds.
export function within(milliseconds) {
  const ending = new AbortController();
  setTimeout(() => ending.abort(), milliseconds);
  return ending.signal;
}

// Whether an element is shown.
export const shown = (element) => element.checkVisibility?.() ?? element.getClientRects().length > 0;

// Hands a form in, as a press on a button of it would.
export function submitForm(form) {
  if (form.requestSubmit) {
    form.requestSubmit();
    return;
  }
  const button = Object.assign(document.createElement("button"), { hidden: true });
  form.append(button);
  button.click();
  button.remove();
}

// What a form holds, and the button that it is handed in with.
export function formData(form, button) {
  const data = new FormData(form);
  if (button?.name) data.append(button.name, button.value);
  return data;
}

// The last of a list, or one so many before it.
export const last = (list, back = 0) => list[list.length - 1 - back];

// A list in which others stand in the place of some.
export const spliced = (list, at, gone, ...instead) => [...list.slice(0, at), ...instead, ...list.slice(at + gone)];
