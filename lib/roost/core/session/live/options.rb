# frozen_string_literal: true

module Roost
  module Core
    module Session
      # What a teacher chooses when starting a session. All have a value from the start.
      #
      # opens_itself::     a question opens as soon as its slide is reached
      # may_change::       an answer handed in may be changed while answers are open
      # code_throughout::  the class screen keeps showing the join code
      # names_shown::      the class screen shows names in the lobby and in the standings
      # speed_share::      share of the points that speed decides, 0 to 1/2 (rules.md)
      # questions_mixed::  questions come in another order in their round or quiz
      # parts_mixed::      each seat gets the parts of a question in another order
      # results_itself::   when a question's time is up, its results are put up
      # sounds::           where rounds are heard: one of SOUNDS
      # one_touch::        in a game round a touch on a single choice hands it in, as long as it may be changed
      # own_copy::         students may look at what they gave afterwards, with what was right
      # entry::            by what students come in: one of ENTRIES
      # teams::            how seats come to teams: one of Team::WAYS; team_count:: how many there are, as text
      # extra::            what is asked of them besides, as the page calls it; "" for nothing
      # names_alone::      in an assignment, a name of the class list needs no pass
      # released::         their copies have all that is right, whatever was told before
      # rules_version::    of Rules, those in force when it was started
      Options = Struct.new(:opens_itself, :may_change, :code_throughout, :names_shown, :results_itself, :questions_mixed,
                           :parts_mixed, :own_copy, :speed_share, :entry, :extra, :teams, :team_count, :names_alone,
                           :released, :rules_version, :one_touch, :sounds,
                           keyword_init: true) do
        # Those that are ticked.
        self::TICKED = %i[opens_itself may_change code_throughout names_shown results_itself questions_mixed
                          parts_mixed own_copy names_alone one_touch].freeze
        self::ENTRIES = { "free" => "A name they type", "list" => "Their name, picked from the class list",
                          "pass" => "Their student pass", "made_up" => "A made-up name" }.freeze
        # For which there has to be a class.
        self::OF_CLASS = %w[list pass].freeze
        self::EXTRA_LIMIT = 40
        self::SPEED_SHARES = { "0" => "Speed does not count", "0.25" => "Speed counts a quarter",
                               "0.5" => "Speed counts half" }.freeze
        self::SOUNDS = { "off" => "No sounds", "screen" => "On the class screen",
                         "devices" => "On the class screen and on devices" }.freeze
        self::DEFAULTS = { opens_itself: true, may_change: true, code_throughout: true, names_shown: true,
                           results_itself: false, questions_mixed: false, parts_mixed: false, own_copy: true, speed_share: "0.25",
                           entry: "free", extra: "", teams: "", team_count: "4", names_alone: false, released: false,
                           rules_version: Rules::CURRENT.version, one_touch: true, sounds: "off" }.freeze

        # Sessions of before students had copies give none, and those of before rules had versions keep the first.
        def self.from_document(document)
          known = document.empty? ? document : { "own_copy" => false, "rules_version" => 1, **document }
          new(**self::DEFAULTS.to_h { |name, default| [name, known.fetch(name.to_s, default)] }).freeze
        end

        # The defaults as a form would say them.
        def self.form = self::DEFAULTS.to_h { |name, value| [name.to_s, { true => "1", false => "" }.fetch(value, value.to_s)] }

        # @param form [Hash{String=>String}] "1" for what is ticked
        # @return [Options] anything not understood gets its default
        def self.read(form)
          share = self::SPEED_SHARES.key?(form["speed_share"]) ? form["speed_share"] : self::DEFAULTS[:speed_share]
          entry = self::ENTRIES.key?(form["entry"]) ? form["entry"] : self::DEFAULTS[:entry]
          extra = Text.read(form["extra"], limit: self::EXTRA_LIMIT, what: "The label", lines: false).value.to_s
          teams = Team::WAYS.key?(form["teams"]) ? form["teams"] : self::DEFAULTS[:teams]
          count = Integer(form["team_count"].to_s, 10, exception: false)
          count = Team::COUNTS.cover?(count) ? count.to_s : self::DEFAULTS[:team_count]
          sounds = form["sounds"] if self::SOUNDS.key?(form["sounds"])
          ticked = self::TICKED.to_h { |name| [name, form[name.to_s] == "1"] }
          new(**ticked, speed_share: share, entry: entry, extra: extra, teams: teams, team_count: count, released: false,
                        sounds: sounds || self::DEFAULTS[:sounds], rules_version: Rules::CURRENT.version).freeze
        end

        def speed = Rational(speed_share)

        # Whether seats play in teams.
        def teams? = !teams.empty?

        # @return [Rules] the session runs under
        def rules = Rules.new(rules_version).freeze

        # Whether one can tell who of a class is there: not from names that were made up.
        def attendance? = entry != "made_up"

        def to_document = to_h.transform_keys(&:to_s)
      end
    end
  end
end
