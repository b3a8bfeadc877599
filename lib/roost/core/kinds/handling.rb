# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      # What a teacher can do at the Desk with what was given: in which way it is shown, and what is
      # done with single words or cards. The Desk offers what a kind declares here, and passes it on as it
      # was sent ("show" and "curate", Session::Commands).
      class Handling < Part
        # Names of what can be done, beside showing.
        COMMANDS = [].freeze
        # Arguments of these, and of the way of showing, that the Desk takes from a request.
        ARGUMENTS = %w[way].freeze

        # What the Desk takes from a request for any kind.
        # @return [Array<String>]
        def self.arguments = Kinds.all.flat_map { |kind| Kinds.part(kind.kind, :Handling)::ARGUMENTS }.uniq

        # How results are to be shown.
        # @param arguments [Hash{String=>Object}] as sent
        # @param before [Hash{String=>Object}] how they are shown, or were last
        # @return [Hash{String=>Object}] "way" (one of the kind's ways) and what else the kind has to say of it
        def look(arguments, before)
          ways = prompt.class.ways
          return {} if ways.empty?

          { "way" => [arguments["way"], before["way"]].find { |way| ways.key?(way) } || ways.keys.first }
        end

        # @param name [String] of a command
        # @param arguments [Hash{String=>Object}] as sent
        # @param curation [Session::Curation] what was done before
        # @return [Session::Curation, nil] nil when that can't be done
        def curated(name, arguments, curation)
          self.class::COMMANDS.include?(name) ? curate(name, arguments, curation) : nil
        end

        private

        # Removes, lets through, pins or sorts: "cards" are keys, one a line, "column" says where to.
        def curate(name, arguments, curation)
          keys = arguments["cards"].to_s.split("\n").map(&:strip).reject(&:empty?)
          curation.after(name, keys, Integer(arguments["column"].to_s, 10, exception: false))
        end
      end
    end
  end
end
