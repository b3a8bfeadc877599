# frozen_string_literal: true

require "json"
require "tempfile"

module Roost
  module Exchange
    # Student passes as cards to be cut out: A4, eight to a page, each with its QR code. Made in a process of its own.
    module PassCards
      A_PAGE = 8 # as Pages has them
      # Of processor time: the codes of a page take half of one.
      SECONDS = 60

      # What stands on a card and where its code leads.
      Card = Struct.new(:name, :pass, :address, :code, keyword_init: true)

      # @param passes [Array<Array(Core::Student, String)>] each with the pass
      # @param base_url [String] where the program is reached
      # @return [Array<Card>, nil] with codes; nil when they could not be made
      def self.cards(passes, base_url:)
        cards = passes.map do |student, pass|
          Card.new(name: student.full_name, pass: Core::StudentPass.spoken(pass), address: "#{base_url}/pass/#{pass}")
        end
        codes = made("codes", cards.map(&:address))
        codes && cards.zip(JSON.parse(codes)).map { |card, code| card.tap { card.code = code } }
      end

      # @param cards [Array<Card>]
      # @return [String, nil] PDF; nil when it could not be made
      def self.pdf(cards, class_name:, base_url:)
        made("cards", [cards.map { |card| [card.name, card.pass, card.code] }, class_name, base_url.sub(%r{\Ahttps?://}, "")])
      end

      def self.made(task, given)
        Tempfile.create("cards") do |file|
          file.write(JSON.generate(given))
          file.flush
          done = Confined.read(task, file.path, seconds: SECONDS)
          done.success ? done.output : nil
        end
      end
      private_class_method :made
    end
  end
end
