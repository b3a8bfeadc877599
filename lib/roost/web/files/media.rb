# frozen_string_literal: true

module Roost
  module Web
    # Files on slides: named by their content, so they are good for ever; a picture also in its widths
    # (FILE.480.webp). What students sent is not among them (AnswerPictures).
    class Media < App
      FOREVER = 31_536_000 # seconds
      A_WHILE = 60
      POLICY = "default-src 'none'; style-src 'unsafe-inline'; img-src data:; sandbox"
      # Requests that may wait for a width to be made at a time; others get the picture itself.
      WAITING = 2

      @turns = SizedQueue.new(WAITING)

      class << self
        attr_reader :turns
      end

      get "/:file" do |name|
        file, width = name.match(Store::Media::SIZED)&.captures
        width ? sized(file, width.to_i) : whole_file(name)
      end

      helpers do
        def whole_file(name, max_age: FOREVER)
          path, type = Store::Media.new.find_shared(name)
          not_found unless path
          hand_out(path, type, max_age)
        end

        def sized(file, width)
          picture = Store::Media.new.picture(file)
          not_found unless picture&.widths&.include?(width)
          path = Store::Media.new.size(file, width) || made(picture, width)
          path ? hand_out(path, "image/webp", FOREVER) : whole_file(file, max_age: A_WHILE)
        end

        def made(picture, width)
          Operations::ConcurrencyLimit.take(Media.turns) { Operations::MakeSizes.new.call(picture, [width]) }
          Store::Media.new.size(picture.file, width)
        end

        def hand_out(path, type, max_age)
          headers "content-security-policy" => POLICY
          cache_control :public, :immutable, max_age: max_age
          send_file path, type: type, disposition: "inline"
        end
      end
    end
  end
end
