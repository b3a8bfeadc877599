// Helps with writing: an equation by buttons, and how many words there are.
import "./equation-entry.js";
import "./word-count.js";
