# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Gaps
        # Completes a text, by typing or from a word bank. The text is written with its gaps:
        # "Swallows leave in [[September | autumn]]." A value is {"gaps" => ["…", …]}, one text
        # a gap, "" for an empty one.
        class Prompt < Core::Prompt
          GAP = /\[\[(.+?)\]\]/m
          MOST_GAPS = 20
          ACCEPTED_LIMIT = 80

          def self.label = "Gaps"
          def self.place = 7
          def self.usual_seconds = 25
          def self.purpose = "Complete a text, by typing or from a word bank"
          def self.charted? = true
          def self.keyable? = true
          def self.on_the_spot = {}

          def self.blank
            { "text" => "", "bank" => false, "distractors" => [], "accents" => true, "slip" => true }
          end

          def instruction = bank? ? "Choose a word for each gap" : "Fill each gap"

          # @return [Reading] of itself, refused when there is too much in it
          def checked
            return Reading.refused("#{MOST_GAPS} gaps is the most a text can have.") if gaps.length > MOST_GAPS

            long = gaps.flatten.find { |word| word.length > ACCEPTED_LIMIT }
            return Reading.ok(self) unless long

            Reading.refused("“#{long[0, 30]}…” is too long for a gap: #{ACCEPTED_LIMIT} characters is the most.")
          end

          def problems = gaps.empty? ? ["no gap yet: write [[word]]"] : []

          def text = settings["text"]

          def bank? = settings["bank"]

          def keyed? = gaps.any?

          def shape = gaps.length

          def shuffle? = bank?

          # @return [Array<Array<String>>] the accepted texts of each gap
          attr_reader :gaps

          # The text in parts: a String as it stands, an Integer for the gap of that number from 0.
          # @return [Array<String, Integer>]
          def parts
            number = -1
            text.split(/(\[\[.+?\]\])/m).map do |part|
              inside = part[/\A\[\[(.+?)\]\]\z/m, 1]
              inside.to_s.split("|").any? { |word| !word.strip.empty? } ? number += 1 : part
            end
          end

          # The words to choose from: one for each gap, and the distractors.
          # @param order [Integer, nil] which order they come in
          def bank_words(order)
            (gaps.map(&:first) + settings["distractors"]).uniq.sort.shuffle(random: Random.new(order || 0))
          end

          def to_read = [text]

          def searchable = super + [text]

          # @return [Array<Boolean>] for each gap whether it is filled rightly
          def right_gaps(value) = gaps.each_with_index.map { |accepted, number| right?(filling(value, number), accepted) }

          def filling(value, number) = value["gaps"][number].to_s

          def right?(filling, accepted)
            TextMatch.accepted?(filling, accepted, accents: settings["accents"], slip: settings["slip"])
          end

          private

          def prepare
            found = text.scan(GAP).map { |(inside)| inside.split("|").map(&:strip).reject(&:empty?) }
            @gaps = found.reject(&:empty?).freeze
          end
        end
      end
    end
  end
end
