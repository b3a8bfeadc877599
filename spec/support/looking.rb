# frozen_string_literal: true

require "capybara"
require "capybara/selenium/extensions/find"

# Elements in one command to the browser. Capybara asks for them, and then of each whether it can be seen; only of more
# than two does it ask for all at once, leaving out those without the words. Most of what browsers do in the suite is to
# answer such commands.
module Looking
  # Arguments: where to look (null: everywhere), css or xpath, the selector, words, whether it matters what can be seen.
  SCRIPT = <<~JS
    const [place, format, selector, words, visibility] = arguments;
    const from = place ?? document;
    let found = [];
    if (format === "css") found = [...from.querySelectorAll(selector)];
    else {
      const all = document.evaluate(selector, from, null, XPathResult.ORDERED_NODE_SNAPSHOT_TYPE, null);
      for (let number = 0; number < all.snapshotLength; number++) found.push(all.snapshotItem(number));
    }
    const has = (text) => words.every((word) => text.includes(word));
    if (words.length > 0 && found.length > 2) found = found.filter(({ textContent }) => has(textContent.toLowerCase()));
    return found.map((element) => [element, visibility ? shown(element) : null]);
  JS

  private

  def find_by(format, selector, uses_visibility:, texts:, styles:, position:)
    node = is_a?(Capybara::Selenium::Node)
    return super if styles || position || (node && shadow_root?)

    looked = [(native if node), format.to_s, selector, texts.map(&:downcase), uses_visibility]
    es_context.execute_script("const shown = #{is_displayed_atom};\n#{SCRIPT}", *looked).map do |element, visible|
      build_node(element, visible.nil? ? {} : { visible: visible })
    end
  end
end
Capybara::Selenium::Find.prepend(Looking)
