# frozen_string_literal: true

module Roost
  module Core
    module Session
      # Where a session stands. What every device shows is a function of this, the
      # frozen lesson, the seats and their answers, so that a device that comes back
      # is simply sent the present view.
      #
      # phase::    "lobby", "live" or "ended"
      # slide_id:: the slide everybody is on
      # openings:: Hash of slide id to [Opening], one an attempt, for every prompt that was ever opened
      # showing::  what the teacher has put on the class screen: "results", "key",
      #            "standings", "pairs" (true) and "spotlight" ([{"seat", "named"}], side by side),
      #            and how results are shown: "look" (as the kind's Handling says) and "page" (from 0)
      # eyes_up::  all devices rest until the teacher goes on
      # set_aside:: ids of slides whose question was set aside: it counts for nobody
      # curated::  Hash of slide id to Curation, where the teacher has sorted what was given
      # room_for:: how many seats the teacher expects; more are turned away
      # locked::   nobody else may join
      # pairs::    who was told to talk with whom, round by round: Arrays of groups of ids of seats
      # pen::      whether the teacher's pen is out; board:: number of the blank page that is up instead of the slide, or nil
      # boards::   papers of the blank pages; inked:: pages (Ink.page) over which the pen has been
      # begun_at:: when the lesson began (epoch seconds); nil in the lobby, and for sessions of before that was kept
      # talk::     Talk over the present slide, or nil
      # to_show::  "key" or "standings", to be put up as soon as the grace after answering is over; nil mostly
      # by_hand::  whether devices that have not been here are let in by the teacher, one by one
      # time_given:: to those at work in a quiz: Hash of its id to Hash of EVERYBODY or a seat's id (text) to seconds
      State = Struct.new(:phase, :slide_id, :openings, :showing, :eyes_up, :set_aside, :curated, :room_for, :locked, :talk,
                         :pairs, :begun_at, :pen, :board, :boards, :inked, :time_given, :to_show, :by_hand,
                         keyword_init: true) do
        self::EXPECTED = 60
        self::EVERYBODY = "all"

        def self.start
          new(phase: "lobby", slide_id: nil, openings: {}.freeze, showing: {}.freeze, eyes_up: false, set_aside: [].freeze,
              curated: {}.freeze, room_for: self::EXPECTED, locked: false, talk: nil, pairs: [].freeze, begun_at: nil,
              pen: false, board: nil, boards: [].freeze, inked: [].freeze, time_given: {}.freeze, to_show: nil,
              by_hand: false).freeze
        end

        # @param document [Hash] as #to_document gives it
        # @param openings [Hash{String=>Array<Opening>}] which are kept by themselves
        def self.from_document(document, openings = {})
          new(phase: document.fetch("phase"), slide_id: document["slide_id"],
              openings: openings.freeze,
              showing: showing(document.fetch("showing")), eyes_up: document.fetch("eyes_up"),
              set_aside: document.fetch("aside", []).freeze, locked: document.fetch("locked", false),
              room_for: document.fetch("room_for", self::EXPECTED), talk: Talk.from_document(document["talk"]),
              pairs: document.fetch("pairs", []).freeze, begun_at: document["begun_at"],
              pen: document.fetch("pen", false), board: document["board"], boards: document.fetch("boards", []).freeze,
              inked: document.fetch("inked", []).freeze, time_given: document.fetch("time_given", {}).freeze,
              to_show: document["to_show"], by_hand: document.fetch("by_hand", false),
              curated: document.fetch("curated", {}).transform_values { |each| Curation.from_document(each) }.freeze).freeze
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
        def opening(slide_id = self.slide_id) = openings[slide_id]&.last

        def open? = live? && !opening.nil? && opening.open?

        def set_aside?(slide_id) = set_aside.include?(slide_id)

        # The state with another latest opening of a slide: in place of that of the same attempt, or
        # after the earlier ones.
        # @return [State]
        def opened(slide_id, opening)
          earlier = openings.fetch(slide_id, []).reject { |each| each.attempt == opening.attempt }
          with(openings: openings.merge(slide_id => [*earlier, opening].freeze).freeze)
        end

        # @return [Curation]
        def curation(slide_id) = curated.fetch(slide_id, Curation::BLANK)

        def shows?(what) = showing.key?(what)

        # All but the openings.
        def to_document
          { "phase" => phase, "slide_id" => slide_id, "showing" => showing, "eyes_up" => eyes_up, "aside" => set_aside,
            "room_for" => room_for, "locked" => locked, "talk" => talk&.to_document, "pairs" => pairs, "begun_at" => begun_at,
            "pen" => pen, "board" => board, "boards" => boards, "inked" => inked, "time_given" => time_given,
            "to_show" => to_show, "by_hand" => by_hand, "curated" => curated.transform_values(&:to_document) }
        end
      end
    end
  end
end
