# frozen_string_literal: true

module Roost
  module Core
    # What a teacher says of herself when an account is made, read from a form.
    module NewTeacher
      LONGEST_NAME = 80
      LONGEST_EMAIL = 200
      EMAIL = /\A[^\s,;@]+@[^\s,;@]+\z/
      NAMELESS = "Your name is needed: students and colleagues see it."
      NO_EMAIL = "That isn't a whole email address."

      # @param form [Hash] "name", "email"
      # @return [Reading] of Hash: :name, :email
      def self.read(form)
        Text.read(form["name"], limit: LONGEST_NAME, what: "Your name", lines: false).and_then do |name|
          next Reading.refused(NAMELESS) if name.empty?

          email(form["email"]).map { |address| { name: name, email: address } }
        end
      end

      # @return [Reading] of String
      def self.email(raw)
        address = raw.to_s.strip
        fits = address.length <= LONGEST_EMAIL && address.valid_encoding? && address.match?(EMAIL)
        fits ? Reading.ok(address) : Reading.refused(NO_EMAIL)
      end
    end
  end
end
