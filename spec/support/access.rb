# frozen_string_literal: true

require "set"

# What can be said of a page by machine about whether everybody can use it.
module Access
  AXE = File.read(File.join(Roost::Settings::ROOT, "node_modules/axe-core/axe.min.js"))
  # Where the program that specs run hands it out: to bring it into every page that is opened would cost half a page more.
  AXE_PATH = "/axe.js"
  # How a page is built, without its words. Of those that are built alike and stand side by side two are looked at: axe
  # takes a second for a list of forty.
  RUN = <<~JS
    const [path, done] = arguments;
    const options = { resultTypes: ["violations"], iframes: false, preload: false, rules: { "target-size": { enabled: true } } };
    const found = ({ violations }) => violations.map(({ id, nodes }) => `${id}: ${nodes[0].html.slice(0, 120)}`);
    const says = /^(class|role|type|hidden|disabled|style|tabindex|open|aria-.*)$/;
    const built = (node) => node.nodeType === 3 ? (node.textContent.trim() ? "t" : "")
      : `<${node.localName} ${[...node.attributes ?? []].filter(({ name }) => says.test(name))
        .map(({ name, value }) => name + (name.startsWith("aria-label") ? "" : value)).join()}>` +
        [...node.childNodes].map(built).join("");
    const alike = [...document.querySelectorAll("ul, ol, tbody, select")].flatMap((list) => {
      const times = {};
      return [...list.children].filter((child) => (times[built(child)] = (times[built(child)] ?? 0) + 1) > 2);
    });
    const run = () => {
      const before = alike.map((each) => each.getAttribute("style"));
      alike.forEach((each) => each.style.setProperty("display", "none", "important"));
      axe.run(document, options).then((results) => {
        alike.forEach((each, place) => before[place] === null ? each.removeAttribute("style") : each.setAttribute("style", before[place]));
        done(found(results));
      });
    };
    if (window.axe) run();
    else {
      const script = Object.assign(document.createElement("script"), { src: path, onload: run, onerror: () => done(null) });
      document.head.append(script);
      script.remove();
    }
  JS
  FOCUSED = <<~JS
    (() => {
      const element = document.activeElement;
      if (!element || element === document.body || element.matches("iframe")) return null;
      // What is to be seen of a control that lies, unseen, over something else.
      const seen = element.closest(".option, .tool, .menu-item, label") ?? element;
      const box = (element.matches("input[type=radio], input[type=checkbox], input[type=file]") ? seen : element).getBoundingClientRect();
      element.dataset.tabbed = (Number(element.dataset.tabbed ?? 0) + 1).toString();
      // A bar may lie over it.
      const above = document.elementFromPoint(box.x + box.width / 2, box.y + box.height / 2);
      // What stands in a like place and is drawn alike.
      const place = [element, element.parentElement, element.parentElement.parentElement]
        .map(({ localName, className, type }) => [localName, className, type]);
      const drawn = [element, seen].map((each) => getComputedStyle(each))
        .map((style) => ["outline", "outlineOffset", "boxShadow", "backgroundColor", "color"].map((name) => style[name]));
      const like = [place, drawn].join();
      return { like, covered: !seen.contains(above) && !element.contains(above),
               name: (element.getAttribute("aria-label") || element.textContent || element.name || element.id).trim().slice(0, 60),
               tag: element.localName, again: element.dataset.tabbed !== "1",
               box: [box.x + scrollX, box.y + scrollY, box.width, box.height] };
    })()
  JS
  WIDER = <<~JS
    const done = arguments[0], page = document.documentElement;
    requestAnimationFrame(() => requestAnimationFrame(() => done(page.scrollWidth - page.clientWidth)));
  JS
  ROOM = 8 # pixels around what has focus
  LEAST = 60 # pixels that have to look otherwise

  # @return [Array<String>] what axe finds wrong, all its rules but experimental ones, targets of 24 px too
  def violations(session)
    # Other programs, and one that has stopped, don't hand it out.
    session.evaluate_async_script(RUN, AXE_PATH) || session.execute_script(AXE) || session.evaluate_async_script(RUN, AXE_PATH)
  end

  # @return [Integer] pixels by which a page is wider than a window of 320
  def too_wide(session)
    size = session.evaluate_script("[innerWidth, innerHeight]")
    resize(session, 320, 640)
    session.evaluate_async_script(WIDER)
  ensure
    resize(session, *size)
  end

  # Goes through a page with the Tab key. Nothing may lie over what has focus; one of those that stand in
  # like places and are drawn alike is compared in pictures with and without it.
  # @return [Array(Array<String>, Integer)] what doesn't show that it has focus, and how many things have had it
  def without_focus(session, most: 60)
    session.execute_script("document.activeElement?.blur(); scrollTo(0, 0)")
    seen = 0
    alike = Set.new
    faults = []
    most.times do
      session.driver.browser.action.send_keys(:tab).perform
      focused = session.evaluate_script(FOCUSED)
      next if focused.nil?
      break if focused["again"]

      seen += 1
      shown = !focused["covered"] && (!alike.add?(focused["like"]) || shows?(session, focused["box"]))
      faults << "#{focused["tag"]} #{focused["name"]}" unless shown
    end
    [faults, seen]
  end

  private

  def resize(session, width, height)
    session.driver.browser.execute_cdp("Emulation.setDeviceMetricsOverride", width: width, height: height,
                                                                             deviceScaleFactor: 1, mobile: true)
  end

  def shows?(session, box)
    with = picture(session, box)
    session.execute_script("window.had = document.activeElement; window.had.blur()")
    without = picture(session, box)
    session.execute_script("window.had.focus({ focusVisible: true, preventScroll: true })")
    differing(with, without) >= LEAST
  end

  def picture(session, box)
    x, y, width, height = box
    clip = { x: [x - ROOM, 0].max, y: [y - ROOM, 0].max, width: width + (2 * ROOM), height: height + (2 * ROOM), scale: 1 }
    shot = session.driver.browser.execute_cdp("Page.captureScreenshot", format: "png", clip: clip, optimizeForSpeed: true)
    Vips::Image.new_from_buffer(shot["data"].unpack1("m"), "")
  end

  # @return [Integer] pixels
  def differing(one, other)
    return LEAST unless one.width == other.width && one.height == other.height

    ((one - other).abs > 24).bandor.avg * one.width * one.height / 255
  end
end
