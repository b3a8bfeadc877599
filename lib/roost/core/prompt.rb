# frozen_string_literal: true

require "json"

module Roost
  module Core
    # What a slide asks of students. Every kind is one subclass in core/prompts/ and
    # has the same methods in the same order:
    #
    # about itself::  .label, .place, .purpose, .on_the_spot, .charted?, .keyable?, .blank,
    #                 .fitting, #instruction
    # its settings::  #edited, #corrected, #shape, #problems, #keyed?, #words, #searchable
    # in a sheet::    #row_options, #row_right, #row_pictures, #row_slots, #rules, .from_row
    # at a seat::     #shuffle?, #part_ids, #turned
    # an answer::     #read, #blank_answer?, #missing, #understood, #mark, #tally, #gathered, #for_class, #pages, #page,
    #                 #plain, #remark
    # rehearsal::     #imagine
    #
    # Nothing outside core/prompts/ and the views and elements of a kind knows which
    # kinds there are. Settings are a frozen Hash as it stands in the lesson document.
    #
    # Every kind also has these settings:
    #
    # time_limit::  seconds, or nil
    # points::      for a full mark; nil stands for DEFAULT_POINTS
    # poll::        true when it has no right answer, on purpose
    # explanation:: shown with the right answer; Markdown
    # hint::        students may look at it while they answer
    # subtopics::   Array of a teacher's own words; standards:: Array of codes
    # bloom::       one of BLOOM, or ""; depth:: 1 to 4 (Webb's depth of knowledge), or nil
    # practice::    true when its marks don't count in results
    # may_change::  whether an answer handed in may be changed; nil: as the session says
    class Prompt
      TIME_LIMITS = (5..600)
      POINTS = (0..1000)
      DEFAULT_POINTS = 100
      TEXTS = { "explanation" => ["The explanation", 2000], "hint" => ["The hint", 500] }.freeze
      TAGS_LIMIT = 600
      MOST_TAGS = 12
      # The revised taxonomy of Bloom (Anderson and Krathwohl, 2001).
      BLOOM = %w[remember understand apply analyse evaluate create].freeze
      # Webb's depth of knowledge.
      DEPTHS = { 1 => "recall", 2 => "skill or concept", 3 => "strategic thinking", 4 => "extended thinking" }.freeze
      MAY_CHANGE = { "" => nil, "yes" => true, "no" => false }.freeze
      COMMON = { "time_limit" => nil, "points" => nil, "poll" => false, "explanation" => "", "hint" => "",
                 "subtopics" => [], "standards" => [], "bloom" => "", "depth" => nil, "practice" => false,
                 "may_change" => nil }.freeze

      # Settings with which the kind can be asked on the spot, by what the button says.
      # @return [Hash{String=>Hash}]
      def self.on_the_spot = { label => {} }

      # Whether the tally says more than the list of answers does.
      def self.charted? = false

      # Ways in which what the class gave can be shown, by what the button says; the first is
      # how it begins.
      # @return [Hash{String=>String}]
      def self.ways = {}

      # Whether the kind can have a key.
      def self.keyable? = false

      # Settings with which the kind begins on a slide, beside those it shares with the
      # kind that was there before.
      def self.fitting(_slide) = {}

      attr_reader :id, :settings

      # The kind's name in documents, folders and CSS classes.
      def self.kind = name.split("::").last.downcase

      def initialize(id:, settings:)
        @id = id
        @settings = COMMON.merge(self.class.blank, settings).freeze
        prepare
        freeze
      end

      def kind = self.class.kind

      def label = self.class.label

      # Whether the answer is given on the slide's picture, which then isn't shown twice.
      def uses_picture? = false

      # Whether what is given stands on a board for all as soon as it may.
      def board? = false

      # Whether pictures may be sent from seats with an answer.
      def uploads? = false

      # Whether the Desk lists the answers one by one.
      def listed? = true

      # Whether it can't be asked on a slide without a picture.
      def needs_picture? = false

      # Whether its options can be pictures; then there is #picturing.
      def pictured? = false

      # Whether seats get the parts of the answer in different orders. Then they also get them
      # under other names (Room::Handles), so that neither tells what is right.
      def shuffle? = false

      # Ids of the parts that an answer refers to.
      def part_ids = []

      # Two cards of a game that were turned over, each known to the seat by a name. Where the parts
      # don't lie face down it tells nothing: it would tell the key.
      # @param cards [Array(String, String)]
      # @param names [Room::Handles]
      # @return [Array(String, String), nil] the pair they make, as the form of an answer has it
      def turned(_cards, _names) = nil

      # Seconds, or nil when answering is not timed.
      def time_limit = settings["time_limit"]

      # For a full mark.
      def points = settings["points"] || DEFAULT_POINTS

      def explanation = settings["explanation"]

      def hint = settings["hint"]

      def subtopics = settings["subtopics"]

      def standards = settings["standards"]

      # Whether its marks count in results.
      def counts? = !settings["practice"]

      def may_change = settings["may_change"]

      def keyed? = false

      # What answers refer to: as long as it is the same, answers given before an edit can be
      # read and marked after it.
      def shape = nil

      # The same question with another key, for a session in which it has been answered.
      # @param form [Hash] the fields of the kind's view `key`, and "points"
      # @return [Reading]
      def corrected(form)
        edited(form).and_then do |changed|
          next Reading.ok(changed) if changed.shape == shape

          Reading.refused("Answers have been given to this question as it is. Only what is right can change now.")
        end
      end

      def words = 0

      # Texts of it that can be searched for.
      def searchable = [explanation, hint, *subtopics, *standards]

      def problems = self.class.keyable? && !keyed? && !settings["poll"] ? ["no key yet"] : []

      # What a row of a sheet of questions holds of it (exchange/question_row.rb): texts in
      # the option columns, the key in letters, pictures by letter, and rules in words.
      def row_options = []

      def row_right = ""

      def row_pictures = {}

      # Where pictures can go, by what the sheet calls it ("A" is option A), as ids for #picturing.
      def row_slots = {}

      def rules = []

      # @param options [Array<String>] the option columns in order, empty ones included
      # @param right [String] the key in letters
      # @param rules [RowRules] in words; what a kind does not know is not for it
      # @param common [Hash] a form with the settings every kind has
      # @return [Reading] of a prompt
      def self.from_row(id, options:, right:, rules:, common:) # rubocop:disable Lint/UnusedMethodArgument
        new(id: id, settings: {}).edited(common)
      end

      # Marks are given by hand unless the kind says otherwise.
      # @return [Rational, nil] how right a value is, 0 to 1; nil when nothing marks it
      def mark(_value) = nil

      # What the class gave, with all that a tally may need. A kind defines this or #tally.
      #
      # @param values [Hash{Integer=>Hash}] seat id to value
      # @param names [Hash{Integer=>String}] seat id to name
      # @param curation [Room::Curation] what the teacher has done with single words or cards
      # @param before the tally of the moment before, or nil: what it knows isn't worked out again
      def gathered(values, **) = tally(values.values)

      # What values come to by themselves.
      # @param values [Array<Hash>]
      def tally(values) = gathered(values.each_with_index.to_h { |value, place| [place, value] })

      # What of a tally may reach the class screen and the seats.
      def for_class(tally) = tally

      # How many pages it takes on the class screen what the class gave: so much as can be read
      # from the back row goes on one.
      # @param tally as #for_class gives it
      # @param way [String, nil] one of .ways
      def pages(_tally, _way) = 1

      # What of a tally stands on one of these pages, by number from 0.
      def page(tally, _way, _number) = tally

      # What the teacher should notice of one answer beside the others, in a word or two.
      # @param _tally what #tally gave of all answers
      # @return [String, nil]
      def remark(_value, _tally) = nil

      # @return [Picture, nil] a picture that was sent with an answer
      def picture_of(_value, _post_id) = nil

      # What to do before there is anything to hand in.
      def missing = "There is nothing to hand in yet."

      # What was made of an answer, for the student to see while typing.
      # @return [String, nil] nil where that is plain to see
      def understood(_value) = nil

      # What a question of any kind goes on with when its kind is changed.
      def shared = settings.slice(*COMMON.keys)

      # The same question under another id.
      def copy(copy_id) = self.class.new(id: copy_id, settings: settings)

      def to_document = settings.merge("id" => id, "kind" => kind)

      def ==(other) = other.is_a?(Prompt) && to_document == other.to_document

      private

      # @return [Integer] how many pages so many things take; at least one, for none
      def pages_of(count, each) = [(count / each.to_f).ceil, 1].max

      # What a kind works out of its settings once, before it is frozen.
      def prepare; end

      def with_settings(changes) = self.class.new(id: id, settings: settings.merge(changes))

      # The settings every kind has, from an editor's form. What the form leaves out stays.
      # @return [Reading] of a Hash with keys of COMMON
      def read_common(form)
        read_number(form.fetch("time_limit", time_limit), TIME_LIMITS, "The time limit", "seconds").and_then do |time_limit|
          read_number(form.fetch("points", settings["points"]), POINTS, "Points", "points").and_then do |points|
            read_texts(form).map do |texts|
              { "time_limit" => time_limit, "points" => points }.merge(texts, read_tags(form), read_choices(form))
            end
          end
        end
      end

      def read_texts(form)
        texts = TEXTS.select { |name, _| form.key?(name) }.to_h do |name, (what, limit)|
          [name, Text.read(form[name], limit: limit, what: what)]
        end
        refused = texts.values.find { |reading| !reading.ok? }
        refused || Reading.ok(texts.transform_values(&:value))
      end

      def read_tags(form)
        %w[subtopics standards].select { |name| form.key?(name) }.to_h do |name|
          text = Text.read(form[name], limit: TAGS_LIMIT, what: "The tags", lines: false)
          [name, text.value.to_s.split(/[,;]/).map(&:strip).reject(&:empty?).uniq.first(MOST_TAGS)]
        end
      end

      def read_choices(form)
        choices = {}
        %w[poll practice].each { |name| choices[name] = form[name] == "1" if form.key?(name) }
        choices["bloom"] = BLOOM.include?(form["bloom"]) ? form["bloom"] : "" if form.key?("bloom")
        choices["depth"] = DEPTHS.keys.find { |depth| depth.to_s == form["depth"] } if form.key?("depth")
        choices["may_change"] = MAY_CHANGE[form["may_change"]] if form.key?("may_change")
        choices
      end

      def read_number(raw, range, what, unit)
        text = raw.to_s.strip
        return Reading.ok(nil) if text.empty?

        number = Integer(text, 10, exception: false)
        return Reading.ok(number) if number && range.cover?(number)

        Reading.refused("#{what} can be #{range.min} to #{range.max} #{unit}, or empty.")
      end

      # @return [Object, nil] what a text says as JSON, [] for an empty one; nil when it says
      #   nothing, or is longer than so many bytes
      def parsed(text, most:)
        return nil unless text.bytesize <= most && text.valid_encoding?

        text.strip.empty? ? [] : JSON.parse(text, max_nesting: 4)
      rescue JSON::ParserError, EncodingError
        nil
      end

      # One text field of an answer, as a device sends it: {"name" => ["text"]}.
      def field(raw, name)
        return nil unless raw.is_a?(Hash)

        values = raw[name]
        values.is_a?(Array) ? values.first : values
      end
    end
  end
end
