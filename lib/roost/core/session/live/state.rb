# frozen_string_literal: true

require "forwardable"

module Roost
  module Core
    module Session
      # Where a session stands. What every device shows is a function of this, the
      # frozen lesson, the seats and their answers, so that a device that comes back
      # is simply sent the present view.
      #
      # phase::    "lobby", "live" or "ended"
      # slide_id:: the slide everybody is on
      # showing::  what the teacher has put on the class screen: "results", "key",
      #            "standings", "pairs" (true) and "spotlight" ([{"seat", "named"}], side by side),
      #            and how results are shown: "look" (as the kind's Handling says) and "page" (from 0)
      # eyes_up::  all devices rest until the teacher goes on
      # room_for:: how many seats the teacher expects; more are turned away
      # locked::   nobody else may join
      # pen::      whether the teacher's pen is out; board:: number of the blank page that is up instead of the slide, or nil
      # boards::   papers of the blank pages; inked:: pages (Ink.page) over which the pen has been
      # begun_at:: when the lesson began (epoch seconds); nil in the lobby, and for sessions of before that was kept
      # talk::     Talk over the present slide, or nil
      # to_show::  "key" or "standings", to be put up as soon as the grace after answering is over; nil mostly
      # by_hand::  whether devices that have not been here are let in by the teacher, one by one
      # facts::    Facts of what was done about its questions so far, which are kept by themselves
      # time_given:: to those at work in a quiz: Hash of its id to Hash of EVERYBODY or a seat's id (text) to seconds
      State = Struct.new(:phase, :slide_id, :facts, :showing, :eyes_up, :room_for, :locked, :talk, :begun_at, :pen, :board,
                         :boards, :inked, :time_given, :to_show, :by_hand, keyword_init: true) do
        extend Forwardable

        def_delegators :facts, :openings, :set_aside?, :curation, :pairs, :plays

        self::EXPECTED = 60
        self::EVERYBODY = "all"

        def self.start
          new(phase: "lobby", slide_id: nil, facts: Facts::NONE, showing: {}.freeze, eyes_up: false, room_for: self::EXPECTED,
              locked: false, talk: nil, begun_at: nil, pen: false, board: nil, boards: [].freeze, inked: [].freeze,
              time_given: {}.freeze, to_show: nil, by_hand: false).freeze
        end

        # @param document [Hash] as #to_document gives it
        # @param facts [Facts]
        def self.from_document(document, facts = Facts::NONE)
          new(phase: document.fetch("phase"), slide_id: document["slide_id"], facts: facts,
              showing: showing(document.fetch("showing")), eyes_up: document.fetch("eyes_up"),
              locked: document.fetch("locked", false), room_for: document.fetch("room_for", self::EXPECTED),
              talk: Talk.from_document(document["talk"]), begun_at: document["begun_at"], pen: document.fetch("pen", false),
              board: document["board"], boards: document.fetch("boards", []).freeze,
              inked: document.fetch("inked", []).freeze, time_given: document.fetch("time_given", {}).freeze,
              to_show: document["to_show"], by_hand: document.fetch("by_hand", false)).freeze
        end

        # Sessions begun before several could be shown have one spotlight; and those begun before kinds
        # said how they are shown have the way beside the rest.
        def self.showing(document)
          light = document["spotlight"]
          look = document.slice("way", "opacity")
          document = document.merge("spotlight" => [light]) if light.is_a?(Hash)
          document = document.except(*look.keys).merge("look" => look) if look.any?
          document.freeze
        end
        private_class_method :showing

        # @return [Array<Hash>] of "seat" and "named"
        def spotlights = showing.fetch("spotlight", [])

        # @return [Hash{String=>Object}] how results are shown
        def look = showing.fetch("look", {})

        def with(**changes) = self.class.new(**to_h, **changes).freeze

        def lobby? = phase == "lobby"

        def live? = phase == "live"

        def ended? = phase == "ended"

        # @return [Opening, nil] the latest of a slide
        def opening(slide_id = self.slide_id) = facts.opening(slide_id)

        def open? = live? && !opening.nil? && opening.open?

        # The state with another latest opening of a slide (Facts#opened).
        # @return [State]
        def opened(slide_id, opening) = with(facts: facts.opened(slide_id, opening))

        def shows?(what) = showing.key?(what)

        # All but the facts.
        def to_document
          { "phase" => phase, "slide_id" => slide_id, "showing" => showing, "eyes_up" => eyes_up, "room_for" => room_for,
            "locked" => locked, "talk" => talk&.to_document, "begun_at" => begun_at, "pen" => pen, "board" => board,
            "boards" => boards, "inked" => inked, "time_given" => time_given, "to_show" => to_show, "by_hand" => by_hand }
        end
      end
    end
  end
end
