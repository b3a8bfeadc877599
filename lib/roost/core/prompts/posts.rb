# frozen_string_literal: true

module Roost
  module Core
    module Prompts
      # Adds cards to a board all can see: a text, a picture, an emoji. The teacher may want to
      # see each before the class does, removes, pins and sorts them into columns. Never keyed.
      # A value is {"posts" => [{"id", "text", "emoji", "picture", "at"}], "likes" => [keys of
      # cards of others], "writing" => what is typed and not posted yet}.
      class Posts < Prompt
        MOST = (1..10)
        TEXT_LIMIT = 280
        COLUMNS = (0..4)
        COLUMN_LIMIT = 40
        MOST_LIKES = 300
        MOST_BYTES = 40_000
        # Cards on a page, as they come and sorted into columns.
        ON_A_PAGE = 12
        SORTED_ON_A_PAGE = 18
        EMOJI = %w[👍 💡 ❓ 😮 😂 ❤️ 🐦 🌊].freeze
        POST_ID = /\Ap\d{1,4}\z/
        KEY = /\A\d{1,18}-p\d{1,4}\z/
        # Milliseconds since 1970, as the device says; only for the order of cards.
        TIMES = (0..4_102_444_800_000)
        UNREADABLE = Reading.refused("Those cards could not be read. Reload the page and add them again.")
        GENERIC = ["I saw a heron this morning.", "Why do they fly in a V?", "The wind was from the north.",
                   "My grandmother feeds them in winter."].freeze
        private_constant :GENERIC

        def self.label = "Posts"
        def self.place = 10
        def self.purpose = "Add cards to a board all can see"
        def self.charted? = true
        def self.on_the_spot = { "A board" => {} }

        def self.blank
          { "most" => 3, "approve" => true, "named" => false, "likes" => true, "pictures" => true, "columns" => [],
            "samples" => [] }
        end

        def instruction
          cards = most == 1 ? "Add a card to the board" : "Add up to #{most} cards to the board"
          approve? ? "#{cards}. Your teacher sees each one first." : cards
        end

        # @param form [Hash] "most", "approve", "named", "likes", "pictures", "columns" with commas between
        def edited(form)
          read_common(form).and_then do |common|
            read_number(form.fetch("most", most.to_s), MOST, "The number of cards", "cards").and_then do |number|
              read_columns(form).map do |columns|
                ticks = %w[approve named likes pictures].to_h do |name|
                  [name, form.fetch(name, settings[name] ? "1" : "0") == "1"]
                end
                with_settings(common.merge(ticks, "most" => number || most, "columns" => columns))
              end
            end
          end
        end

        def most = settings["most"]

        # Whether the teacher sees each card before the class does.
        def approve? = settings["approve"]

        def named? = settings["named"]

        def likes? = settings["likes"]

        def uploads? = settings["pictures"]

        # @return [Array<String>] names of the columns cards can be sorted into
        def columns = settings["columns"]

        def board? = true

        def listed? = false

        def searchable = super + columns

        def row_options = columns

        def rules
          ["up to #{most} cards", *{ "shown at once" => !approve?, "with names" => named?, "no likes" => !likes?,
                                     "no pictures" => !uploads? }.filter_map { |words, said| words if said }]
        end

        def self.from_row(id, options:, right:, rules:, common:) # rubocop:disable Lint/UnusedMethodArgument
          number = rules.filter_map { |rule| rule[/\Aup to (\d+) cards?\z/, 1] }.first
          ticks = { "approve" => !rules.include?("shown at once"), "named" => rules.include?("with names"),
                    "likes" => !rules.include?("no likes"), "pictures" => !rules.include?("no pictures") }
          columns = options.reject(&:empty?).join(",")
          new(id: id, settings: {}).edited(
            common.merge(ticks.transform_values { |said| said ? "1" : "0" }, "most" => number.to_s, "columns" => columns)
          )
        end

        # @param raw [Hash] "posts" and "likes" hold JSON, "writing" text
        def read(raw, names = Room::Handles::PLAIN)
          posts, likes = %w[posts likes].map { |name| parsed(field(raw, name).to_s, most: MOST_BYTES) }
          return UNREADABLE unless posts.is_a?(Array) && likes.is_a?(Array)
          if posts.length > most
            return Reading.refused("#{most} #{most == 1 ? "card" : "cards"} is the most here. Take one away.")
          end

          Text.read(field(raw, "writing"), limit: TEXT_LIMIT, what: "A card").and_then do |writing|
            read_posts(posts).map { |kept| { "posts" => kept, "likes" => read_likes(likes, names), "writing" => writing } }
          end
        end

        # Whoever liked a card has taken part, too.
        def blank_answer?(value) = value.values_at("posts", "likes", "writing").all?(&:empty?)

        def missing = "Add a card first."

        # @return [Board]
        def gathered(values, names: {}, curation: Room::Curation::BLANK, before: nil)
          Board.new(values, names: names, curation: curation, approve: approve?, before: before)
        end

        # Cards by column, those in none first; all in one while none is sorted.
        # @return [Array<Array(String, Array<Board::Card>)>] nil as the name of those in none
        def grouped(cards)
          by_column = cards.group_by { |card| card.column if card.column && columns[card.column] }
          return [[nil, cards]] if by_column.keys.compact.empty?

          named = columns.each_with_index.map { |name, place| [name, by_column.fetch(place, [])] }
          by_column.key?(nil) ? [[nil, by_column[nil]], *named] : named
        end

        # @return [Board::Shown]
        def for_class(board)
          cards = board.for_class(named: named?)
          Board::Shown.new(groups: grouped(cards), beyond: board.up.length - cards.length).freeze
        end

        def pages(shown, _way) = shown.groups.map { |_, cards| pages_of(cards.length, in_a_column(shown)) }.max

        # Each column goes on by itself.
        def page(shown, _way, number)
          each = in_a_column(shown)
          groups = shown.groups.map { |name, cards| [name, cards.drop(number * each).first(each)] }
          Board::Shown.new(groups: groups, beyond: 0).freeze
        end

        # @param post_id [String]
        # @return [Picture, nil] the picture on one card of a value
        def picture_of(value, post_id)
          post = value["posts"].find { |each| each["id"] == post_id }
          post && Picture.from_document(post["picture"])
        end

        # A card as its writer made it, whatever became of it.
        # @param seat_id [Integer, nil] the writer's
        def card_of(post, seat_id)
          Board::Card.new(key: seat_id && "#{seat_id}-#{post["id"]}", text: post["text"], emoji: post["emoji"],
                          picture: Picture.from_document(post["picture"])).freeze
        end

        def plain(value)
          cards = value["posts"].map { |post| [post["emoji"], post["text"], post["picture"] ? "(picture)" : ""] }
          return value["writing"].empty? ? "liked #{value["likes"].length}" : value["writing"] if cards.empty?

          cards.map { |parts| parts.reject(&:empty?).join(" ") }.join("; ")
        end

        def imagine(_student, random)
          texts = settings["samples"].empty? ? GENERIC : settings["samples"]
          posts = Array.new(1 + random.rand([most, 2].min)) do |place|
            emoji = random.rand < 0.3 ? EMOJI[random.rand(EMOJI.length)] : ""
            { "id" => "p#{place + 1}", "text" => texts[random.rand(texts.length)], "emoji" => emoji, "picture" => nil, "at" => 0 }
          end
          { "posts" => posts.uniq { |post| post["text"] }, "likes" => [], "writing" => "" }
        end

        private

        # How many cards of one column there is room for on a page.
        def in_a_column(shown) = shown.groups.one? ? ON_A_PAGE : SORTED_ON_A_PAGE / shown.groups.length

        def read_columns(form)
          return Reading.ok(columns) unless form.key?("columns")

          Text.read(form["columns"], limit: 200, what: "The columns", lines: false).and_then do |text|
            named = text.split(",").map(&:strip).reject(&:empty?).uniq
            next Reading.refused("#{COLUMNS.max} columns is the most a board can have.") if named.length > COLUMNS.max

            Reading.ok(named.map { |name| name[0, COLUMN_LIMIT] })
          end
        end

        def read_posts(posts)
          readings = posts.map { |post| read_post(post) }
          refused = readings.find { |reading| !reading.ok? }
          return refused if refused

          kept = readings.map(&:value)
          kept.uniq { |post| post["id"] }.length == kept.length ? Reading.ok(kept) : UNREADABLE
        end

        def read_likes(likes, names)
          return [] unless likes?

          likes.first(MOST_LIKES).map { |name| names.card(name) }.select { |key| key.is_a?(String) && key.match?(KEY) }.uniq
        end

        def read_post(post)
          return UNREADABLE unless post.is_a?(Hash) && post["id"].is_a?(String) && post["id"].match?(POST_ID)

          picture = read_picture(post["picture"])
          return UNREADABLE if post["picture"] && picture.nil?

          Text.read(post["text"], limit: TEXT_LIMIT, what: "A card").and_then do |text|
            emoji = EMOJI.include?(post["emoji"]) ? post["emoji"] : ""
            next UNREADABLE if text.empty? && emoji.empty? && picture.nil?

            at = post["at"].is_a?(Integer) ? post["at"].clamp(TIMES.min, TIMES.max) : 0
            Reading.ok({ "id" => post["id"], "text" => text, "emoji" => emoji, "picture" => picture, "at" => at })
          end
        end

        # @return [Hash, nil] a picture that this server keeps, by the look of its name
        def read_picture(raw)
          return nil unless uploads? && raw.is_a?(Hash) && raw["file"].is_a?(String) && raw["file"].match?(Picture::FILE)

          width, height = raw.values_at("width", "height")
          sized = [width, height].all? { |side| side.is_a?(Integer) && side.between?(1, 20_000) }
          { "file" => raw["file"], "width" => width, "height" => height, "alt" => "" } if sized
        end
      end
    end
  end
end
