# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Posts
        # Reads an answer to it.
        class Reader < Kinds::Reader
          TEXT_LIMIT = 280
          MOST_LIKES = 300
          MOST_BYTES = 40_000
          POST_ID = /\Ap\d{1,4}\z/
          KEY = /\A\d{1,18}-p\d{1,4}\z/
          # Milliseconds since 1970, as the device says; only for the order of cards.
          TIMES = (0..4_102_444_800_000)
          UNREADABLE = Reading.refused("Those cards could not be read. Reload the page and add them again.")

          of_prompt :most, :likes?, :uploads?

          # @param raw [Hash] "posts" and "likes" hold JSON, "writing" text
          def read(raw, names = Session::ItemIds::PLAIN)
            posts, likes = %w[posts likes].map { |name| parsed(field(raw, name).to_s, most: MOST_BYTES) }
            return UNREADABLE unless posts.is_a?(Array) && likes.is_a?(Array)
            if posts.length > most
              return Reading.refused("#{most} #{most == 1 ? "card" : "cards"} is the most here. Remove one.")
            end

            Text.read(field(raw, "writing"), limit: TEXT_LIMIT, what: "A card").and_then do |writing|
              read_posts(posts).map { |kept| { "posts" => kept, "likes" => read_likes(likes, names), "writing" => writing } }
            end
          end

          # Whoever liked a card has taken part, too.
          def blank_answer?(value) = value.values_at("posts", "likes", "writing").all?(&:empty?)

          def projected(value) = value["posts"].to_h { |post| [post["id"], post["text"].to_s] }

          def missing = "Add a card first."

          private

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
              emoji = Prompt::EMOJI.include?(post["emoji"]) ? post["emoji"] : ""
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
end
