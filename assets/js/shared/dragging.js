// Sortable in a bundle of its own, fetched where a list is put into order by dragging.
import Sortable from "sortablejs";

window.roost = { ...window.roost, dragging: Sortable };
