# frozen_string_literal: true

module Roost
  module Web
    # Pictures that students gave, at addresses that tell nothing (Core::Session::EncryptedId) and are handed
    # out only in what may be seen: a sketch as a raster tile of a width, or as it was drawn where no
    # width is asked for; the picture on a card as it is.
    class AnswerPictures < App
      WIDTHS = [400, 800, 1200].freeze # pixels
      # Requests that may wait for a tile at a time; others get the drawing itself.
      WAITING = 2

      @turns = SizedQueue.new(WAITING)

      class << self
        attr_reader :turns

        # @return [Core::Session::EncryptedId]
        def ids = @ids ||= Core::Session::EncryptedId.new(Roost.settings.session_secret)

        # @param key [String] of a card, as Core knows it
        def name(slide_id, key)
          seat_id, post = key.split("-p")
          ids.encode(seat_id.to_i, slide_id, post: post.to_i)
        end
      end

      get "/:name" do |name|
        named = AnswerPictures.ids.decode(name) || not_found
        @row = Store::Sessions.new.of_seat(named.seat_id) || not_found
        slide = Store::Sessions.new.lesson(@row.id).slides.find { |each| each.prompt && named.on?(each.id) } || not_found
        value = value(slide, named) || not_found
        cache_control :private, :immutable, max_age: 86_400
        named.post.zero? ? sketch(slide, value) : card(slide.prompt, value, named.post)
      end

      helpers do
        # What that seat gave in the attempt that is named, or in the one that counts.
        # @return [Hash, nil]
        def value(slide, named)
          return Operations::ValueGiven.new.call(@row, slide.id, named.seat_id) if named.attempt.zero?

          Store::Answers.new.value(@row.id, slide.id, named.seat_id, attempt: named.attempt)
        end

        def card(prompt, value, number)
          picture = prompt.picture_of(value, "p#{number}") || not_found
          small = Store::Media.new.size(picture.file, picture.widths.first) if params["w"] == Core::Picture::WIDTHS.first.to_s
          path, type = small ? [small, "image/webp"] : Store::Media.new.find(picture.file)
          path ? send_file(path, type: type, disposition: "inline") : not_found
        end

        def sketch(slide, value)
          not_found unless kind_view?(slide.prompt, "picture")
          width = WIDTHS.find { |each| each.to_s == params["w"] }
          svg = drawn(slide.prompt, value)
          tile = width && Operations::DrawTile.new.call(svg, width, turns: AnswerPictures.turns)
          content_type tile ? "image/png" : "image/svg+xml"
          tile || svg
        end
      end
    end
  end
end
