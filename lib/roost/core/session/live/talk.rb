# frozen_string_literal: true

module Roost
  module Core
    module Session
      # Time to think, to talk with a neighbour or to write: a timer over a slide, whatever that asks. When it is over,
      # that is shown, and nothing moves by itself.
      #
      # what:: a key of WORDS; length:: seconds, as it was set; deadline:: seconds since the epoch, by the database clock
      Talk = Struct.new(:what, :length, :deadline, keyword_init: true) do
        self::WORDS = { "think" => "Think by yourself", "talk" => "Talk with your neighbour", "write" => "Write it down" }.freeze
        # Before a question of a round opens to teams that talk first.
        self::TEAM = "Talk with your team"
        self::LENGTHS = (10..3600)
        # What a timer is made longer or shorter by.
        self::STEP = 30

        def self.begin(what, length, now) = new(what: what, length: length, deadline: now + length).freeze

        # @return [Talk, nil]
        def self.from_document(document) = document && new(**document.transform_keys(&:to_sym)).freeze

        def words = before_answers? ? self.class::TEAM : self.class::WORDS.fetch(what)

        # Whether answers open when it is over.
        def before_answers? = what == "team"

        # Longer by so many seconds, or shorter, but never over before now.
        # @param now [Float]
        def moved(seconds, now)
          ends = [[deadline, now].max + seconds, now].max
          self.class.new(what: what, length: [length, (ends - now).ceil].max, deadline: ends).freeze
        end

        def to_document = to_h.transform_keys(&:to_s)
      end
    end
  end
end
