# frozen_string_literal: true

module Roost
  module Core
    # The name a student joins with.
    module SeatName
      LIMIT = 40

      # @param taken [#call] gives the names in the session so far that begin with a name, in whatever case
      # @return [Reading] of a name that is not taken: the second Bo becomes "Bo 2"
      def self.read(raw, taken: ->(_beginning) { [] })
        Text.read(raw, limit: LIMIT, what: "That name", lines: false).and_then do |name|
          next Reading.refused("Type your name, so that your teacher knows who you are.") if name !~ /[[:alnum:]]/

          Reading.ok(free(name, taken.call(name).map(&:downcase)))
        end
      end

      def self.free(name, taken)
        return name unless taken.include?(name.downcase)

        number = (2..).find { |candidate| !taken.include?("#{name} #{candidate}".downcase) }
        "#{name} #{number}"
      end
      private_class_method :free
    end
  end
end
