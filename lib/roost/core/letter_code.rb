# frozen_string_literal: true

module Roost
  module Core
    # A code of letters and digits that people type and read out. Read back without caring for case and spaces.
    # Characters that are easily taken for one another (0 and O, 1 and I, 5 and S, 8 and B …) are not used, nor
    # vowels: codes spell nothing.
    class LetterCode
      ALPHABET = "CDFGHJKMNPQRTVWXY3479".chars.freeze

      # @param length [Integer] of the code
      # @param group [Integer] how many letters are read out together
      def initialize(length, group)
        @length = length
        @group = group
        freeze
      end

      # @param random [#rand] where a secure source is passed in by the caller
      # @return [String]
      def make(random) = Array.new(@length) { ALPHABET[random.rand(ALPHABET.length)] }.join

      # @return [String, nil] the code as it is kept, or nil when it can't be one
      def read(raw)
        code = raw.to_s.upcase.gsub(/[\s-]/, "")
        code.length == @length && (code.chars - ALPHABET).empty? ? code : nil
      end

      # As people read it out.
      def spoken(code) = code.scan(/.{#{@group}}/).join(" ")
    end
  end
end
