# frozen_string_literal: true

module Roost
  module Core
    # A student's personal code: twelve of the letters and digits of join codes, 21^12 of them, read back
    # without caring for case and spaces.
    module StudentPass
      LENGTH = 12
      GROUP = 4

      # @param random [#rand] where a secure source is passed in by the caller
      def self.make(random) = Array.new(LENGTH) { JoinCode::ALPHABET[random.rand(JoinCode::ALPHABET.length)] }.join

      # @return [String, nil] the pass as it is kept, or nil when it can't be one
      def self.read(raw)
        pass = raw.to_s.upcase.gsub(/[\s-]/, "")
        pass.length == LENGTH && (pass.chars - JoinCode::ALPHABET).empty? ? pass : nil
      end

      # As it stands on a card: three groups of four.
      def self.spoken(pass) = pass.scan(/.{#{GROUP}}/o).join(" ")
    end
  end
end
