# frozen_string_literal: true

# What a device that is broken, or wants to break something, could send as the form of an answer.
module Bodies
  NAMES = %w[options sure text box0 number order strokes words spots pairs tries gap0 posts likes writing other].freeze

  JUNK = [nil, true, 0, -1, Float::INFINITY, "", "x" * 9_000, "\xFF\xFE", "\u0000", "<script>", "1e999", "[]", "{}", "[[[[", [],
          {},
          [nil], [[1]], { "a" => 1 }, ["\u202E"], "i1,i1", "NaN", [1, "o1"], "💥" * 300,
          "[[0.5,0.5]]", "[[2,null,{}]]", '{"m1a":"m2b"}', '{"m1a":{}}', '[{"id":"p1","text":"x","at":-1}]',
          '[{"id":1,"picture":{"file":[]}}]',
          '[{"tool":"pen","colour":"ink","points":[1,1],"pressure":["x"]}]',
          '[{"tool":"sticker","colour":"ink","points":[1,1],"sticker":{}}]'].freeze

  TEXTS = ["<script>alert(1)</script>", "0.5", "1e309", "3/4", "o1", "i2,i1,i3,i4", "i1,i2,i3,i4", "seeds", "\u202E"].freeze

  class << self
    # One of a thousand, by chance.
    def junk(random)
      fields = NAMES.sample(3, random: random).to_h { |name| [name, JUNK.sample(random: random)] }
      random.rand < 0.1 ? JUNK.sample(random: random) : fields
    end

    # A generator of forms in which every field is what a kind asks for, or nearly.
    def any
      fields = { "strokes" => json(list(stroke)), "spots" => json(list(make.tuple(nearly(fraction), nearly(fraction), text))),
                 "pairs" => json(make.hash(one_of(%w[m1a m2a m3a m4a]), nearly(one_of(%w[m1b m2b m3b m4b m5b])), max: 5)),
                 "posts" => json(list(card)), "likes" => json(list(one_of(%w[7-p1 8-p2 x]))),
                 "options" => one_of(%w[o1 o2 o3]), "order" => one_of(%w[i1,i2,i3,i4 i3,i4,i1,i2 i1,i1,i2,i3]),
                 "sure" => one_of(["0", "2", "9", ""]), "tries" => make.integer.map(&:to_s), "number" => number, "gap0" => text }
      make.fixed_hash(NAMES.to_h { |name| [name, make.array(nearly(fields.fetch(name, text)), min: 1, max: 2)] })
    end

    private

    def make = PropCheck::Generators

    def one_of(things) = make.one_of(*things.map { |thing| make.constant(thing) })

    def text = make.one_of(make.string, one_of(TEXTS))

    def number = make.one_of(make.integer.map(&:to_s), make.real_float.map(&:to_s), one_of(["3,5 km", "1/3", "-2e3", "1/0"]))

    def fraction = make.choose(0..100).map { |hundredths| hundredths / 100.0 }

    def stroke
      make.fixed_hash("tool" => nearly(one_of(%w[pen highlighter line text sticker])), "colour" => nearly(one_of(%w[ink rust])),
                      "points" => nearly(make.array(nearly(make.choose(0..1200)), min: 2, max: 6)), "text" => nearly(text),
                      "sticker" => nearly(one_of(%w[star heart])), "pressure" => make.array(make.choose(0..11), max: 3))
    end

    def card
      picture = make.fixed_hash("file" => one_of(["#{"a" * 64}.jpg", "../x.jpg"]), "width" => nearly(make.choose(1..9)),
                                "height" => make.choose(1..9))
      make.fixed_hash("id" => nearly(one_of(%w[p1 p2])), "text" => nearly(text), "emoji" => nearly(one_of(%w[🐦 💡])),
                      "picture" => make.one_of(picture, make.constant(nil)), "at" => nearly(make.integer))
    end

    def list(thing) = make.array(thing, max: 2)

    # Now and then something else altogether.
    def nearly(thing)
      leaf = make.one_of(make.integer, make.real_float, make.boolean, text, make.constant(nil))
      other = make.tree(leaf) { |part| make.one_of(make.array(part, max: 4), make.hash(text, part, max: 4)) }
      make.frequency(12 => thing, 1 => other)
    end

    def json(thing) = thing.map { |each| JSON.generate(scrubbed(each)) }

    def scrubbed(thing)
      case thing
      when String then thing.scrub
      when Array then thing.map { |part| scrubbed(part) }
      when Hash then thing.to_h { |key, part| [key.to_s.scrub, scrubbed(part)] }
      else thing
      end
    end
  end
end
