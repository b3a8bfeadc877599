# frozen_string_literal: true

require "json"
require "tempfile"

module Roost
  module Exchange
    # Student passes as cards to be cut out: A4, eight to a page, each with its QR code.
    module PassCards
      # Of processor time: a page takes half of one.
      SECONDS = 60

      # @param passes [Array<Array(Core::Student, String)>] each with the pass
      # @param class_name [String]
      # @param base_url [String] where the program is reached
      # @return [Array<String>, nil] pages as SVG; nil when they could not be drawn
      def self.pages(passes, class_name:, base_url:)
        cards = passes.map { |student, pass| [student.full_name, Core::StudentPass.spoken(pass), "#{base_url}/pass/#{pass}"] }
        Tempfile.create("cards") do |file|
          file.write(JSON.generate([cards, class_name, base_url.sub(%r{\Ahttps?://}, "")]))
          file.flush
          done = Confined.read("cards", file.path, seconds: SECONDS)
          done.success ? JSON.parse(done.output.force_encoding(Encoding::UTF_8)) : nil
        end
      end
    end
  end
end
