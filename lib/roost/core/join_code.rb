# frozen_string_literal: true

module Roost
  module Core
    # Six letters and digits that let a device into a session. Read back without
    # caring for case and spaces. Characters that are easily taken for one another
    # (0 and O, 1 and I, 5 and S, 8 and B …) are not used, nor vowels: codes spell nothing.
    module JoinCode
      ALPHABET = "CDFGHJKMNPQRTVWXY3479".chars.freeze
      LENGTH = 6

      # @param random [#rand] where a secure source is passed in by the caller
      def self.make(random) = Array.new(LENGTH) { ALPHABET[random.rand(ALPHABET.length)] }.join

      # @return [String, nil] the code as it is kept, or nil when it can't be one
      def self.read(raw)
        code = raw.to_s.upcase.gsub(/[\s-]/, "")
        code.length == LENGTH && (code.chars - ALPHABET).empty? ? code : nil
      end

      # As people read it out: two groups of three.
      def self.spoken(code) = "#{code[0, 3]} #{code[3, 3]}"
    end
  end
end
