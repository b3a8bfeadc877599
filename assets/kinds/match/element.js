// Pairs of two lists, and the same played as cards lying face down.
import "./match-pairs.js";
import "./pairs-game.js";
