# frozen_string_literal: true

module Roost
  module Exchange
    module Kinds
      module Choice
        # Which options are right, as people say it in a sheet: by letter (A, or a, c), by the option's
        # own text, or by number (1 is the first), where the options are no numbers themselves.
        module RightOptions
          BETWEEN = /\s*(?:[,;\n&+]|\band\b)\s*/i
          ROOM = /\s+/
          LETTER = /\A[A-Z]\z/i
          NUMBER = /\A\d{1,2}\z/

          # @param right [String]
          # @param texts [Array<String>] of the options
          # @return [Core::Reading] of an Array of places from 0
          def self.places(right, texts)
            return Core::Reading.ok([]) if right.strip.empty?

            whole = by_text(right, texts)
            return Core::Reading.ok([whole]) if whole && !right.strip.match?(LETTER)

            parts = parts(right)
            found = parts.map { |part| place(part, texts) }
            return Core::Reading.ok(found) if found.all?

            Core::Reading.refused("“Right” names #{parts[found.index(nil)]}, which isn't an option")
          end

          def self.parts(right)
            letters = right.split(/#{BETWEEN}|#{ROOM}/).reject(&:empty?)
            return letters if letters.all? { |part| part.match?(LETTER) || part.match?(NUMBER) }

            right.split(BETWEEN).map(&:strip).reject(&:empty?)
          end

          def self.place(part, texts)
            lettered = part.upcase.ord - "A".ord if part.match?(LETTER)
            return lettered if lettered && lettered < texts.length

            by_text(part, texts) || by_number(part, texts)
          end

          def self.by_text(part, texts) = texts.index { |text| !text.empty? && plain(text) == plain(part) }

          def self.by_number(part, texts)
            return nil if texts.any? { |text| text.match?(/\A-?\d/) } || !part.match?(NUMBER)

            part.to_i - 1 if part.to_i.between?(1, texts.length)
          end

          def self.plain(text) = text.unicode_normalize(:nfkc).downcase.strip.gsub(ROOM, " ")
          private_class_method :parts, :place, :by_text, :by_number, :plain
        end
      end
    end
  end
end
