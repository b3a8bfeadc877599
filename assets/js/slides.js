// The builder's list of slides is put into order by dragging; the arrows beside the
// present slide do the same by keyboard.
import Sortable from "sortablejs";

function makeSortable() {
  const list = document.querySelector("[data-sortable]");
  if (!list || Sortable.get(list)) return;
  Sortable.create(list, {
    animation: matchMedia("(prefers-reduced-motion: reduce)").matches ? 0 : 120,
    draggable: "li",
    onEnd: ({ item, oldIndex, newIndex }) => {
      if (oldIndex === newIndex) return;
      const shown = list.querySelector("[aria-current]").closest("li").dataset.slide;
      window.htmx.ajax("POST", `${list.dataset.sortable}/${item.dataset.slide}/move`, {
        source: item, target: "#builder", swap: "innerMorph", values: { to: newIndex, shown },
      });
    },
  });
}

for (const event of ["htmx:after:swap", "DOMContentLoaded"]) document.addEventListener(event, makeSortable);
