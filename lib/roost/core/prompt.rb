# frozen_string_literal: true

require "forwardable"

module Roost
  module Core
    # What a slide asks of students. Every kind is one subclass, core/kinds/KIND/prompt.rb, which says
    # what the kind is and what its settings mean; what is done with it stands in parts beside it, one
    # purpose each (Kinds::Part). This is the face of all of them:
    #
    # about itself::  .label, .place, .purpose, .on_the_spot, .ways, .charted?, .keyable?, .blank, .fitting, #instruction
    # its settings::  #shape, #problems, #keyed?, #words, #searchable
    # at a seat::     #shuffle?, #part_ids
    # parts::         Form, Reader, Marking, Tallying, Display, Handling, Simulation
    #
    # Nothing outside the folders of a kind knows which kinds there are (spec/kinds_alone_spec.rb). Settings
    # are a frozen Hash as it stands in the lesson document.
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
    # closing::     true when it asks what the class thought of the lesson
    # rubric::      text of a Grading::Rubric; rubric_shown:: true when students see it before they answer
    # may_change::  whether an answer handed in may be changed; nil: as the session says
    class Prompt
      extend Forwardable

      PARTS = %i[Form Reader Marking Tallying Display Handling Simulation].freeze
      DEFAULT_POINTS = 100
      # The revised taxonomy of Bloom (Anderson and Krathwohl, 2001).
      BLOOM = %w[remember understand apply analyse evaluate create].freeze
      # Webb's depth of knowledge.
      DEPTHS = { 1 => "recall", 2 => "skill or concept", 3 => "strategic thinking", 4 => "extended thinking" }.freeze
      MAY_CHANGE = { "" => nil, "yes" => true, "no" => false }.freeze
      COMMON = { "time_limit" => nil, "points" => nil, "poll" => false, "explanation" => "", "hint" => "",
                 "subtopics" => [], "standards" => [], "bloom" => "", "depth" => nil, "practice" => false, "closing" => false,
                 "rubric" => "",
                 "rubric_shown" => false,
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

      # Seconds that most need to think about a question of this kind, once it is read, before what it has of parts.
      def self.usual_seconds = 20

      # Settings with which the kind begins on a slide, beside those it shares with the
      # kind that was there before.
      def self.fitting(_slide) = {}

      # The kind's name in documents, folders and CSS classes.
      def self.kind = @kind ||= name.split("::")[-2].gsub(/(?<=.)(?=[A-Z])/, "_").downcase

      # The parts that do one thing each (Kinds::Part).
      attr_reader :form, :reader, :marking, :tallying, :display, :handling, :simulation

      attr_reader :id, :settings

      def initialize(id:, settings:)
        @id = id
        @settings = COMMON.merge(self.class.blank, settings).freeze
        @form, @reader, @marking, @tallying, @display, @handling, @simulation =
          PARTS.map { |name| Kinds.part(kind, name).new(self) }
        prepare
        freeze
      end

      def kind = self.class.kind

      def label = self.class.label

      # Whether the answer is given on the slide's picture, which then isn't shown twice.
      def uses_picture? = false

      # Whether what is given stands on a board for all as soon as it may.
      def board? = false

      # Whether students at work alone may see what the others put on the board, once they have given something
      # themselves.
      def shows_others? = false

      # Whether a value puts something on the board.
      def on_board?(_value) = false

      # Whether pictures may be sent from seats with an answer.
      def uploads? = false

      # Whether one touch is a whole answer.
      def one_touch? = false

      # Whether the Desk lists the answers one by one.
      def listed? = true

      # Whether it can't be asked on a slide without a picture.
      def needs_picture? = false

      # Whether its options can be pictures; then there is #picturing.
      def pictured? = false

      # Whether seats get the parts of the answer in different orders. Then they also get them
      # under other names (Session::ItemIds), so that neither tells what is right.
      def shuffle? = false

      # The same question with its parts in an order of each seat's own, where that can be chosen.
      def mixed = self

      # Pictures on parts of it.
      # @return [Array<Picture>]
      def pictures = []

      # Ids of the parts that an answer refers to.
      def part_ids = []

      # What can be picked, each with #id, #letter, #name and #key; none where nothing is.
      def choices = []

      # Which of these an answer picks.
      # @return [Array<String>] ids
      def picked(_value) = []

      # How often a guess is right.
      # @return [Rational, nil] nil where that can't be said
      def chance = nil

      # Seconds, or nil when answering is not timed.
      def time_limit = settings["time_limit"]

      # Seconds to think that are proposed for it (Game::TimeProposal adds what is to be read).
      def seconds_to_think = self.class.usual_seconds + (2 * part_ids.length)

      # For a full mark.
      def points = settings["points"] || DEFAULT_POINTS

      def explanation = settings["explanation"]

      def hint = settings["hint"]

      def subtopics = settings["subtopics"]

      def standards = settings["standards"]

      # Whether its marks count in results.
      def counts? = !settings["practice"]

      # What it is about: subtopics, then standards.
      # @return [Array<String>]
      def tags = subtopics + standards

      # How it is marked by hand, where that is said.
      # @return [Grading::Rubric, nil]
      def rubric = (Grading::Rubric.read(settings["rubric"]).value unless keyed?)

      # Whether students see the rubric before they answer.
      def rubric_shown? = settings["rubric_shown"] && !rubric.nil?

      # Whether it asks what the class thought of the lesson, and is looked at over time.
      def closing? = settings["closing"] && !keyed?

      def may_change = settings["may_change"]

      def keyed? = false

      # What answers refer to: as long as it is the same, answers given before an edit can be
      # read and marked after it.
      def shape = nil

      # Texts of it that a student reads before answering.
      # @return [Array<String>]
      def to_read = []

      # Texts of it that can be searched for.
      def searchable = [explanation, hint, *subtopics, *standards]

      def problems = self.class.keyable? && !keyed? && !settings["poll"] ? ["no key yet"] : []

      # What a question of any kind goes on with when its kind is changed.
      def shared = settings.slice(*COMMON.keys)

      # The same question under another id, which knows where it comes from.
      def copy(copy_id) = self.class.new(id: copy_id, settings: settings.merge("origin" => origin))

      # The id of the question it was copied from, of the first where copies were copied, else its own: the same question in
      # another lesson has the same.
      # @return [String]
      def origin = settings["origin"] || id

      def to_document = settings.merge("id" => id, "kind" => kind)

      def ==(other) = other.is_a?(Prompt) && to_document == other.to_document

      # The same question with other settings.
      # @param changes [Hash] those that change
      def with_settings(changes) = self.class.new(id: id, settings: settings.merge(changes))

      def_delegators :form, :edited, :picturing, :corrected
      def_delegators :reader, :read, :blank_answer?, :projected, :missing, :understood
      def_delegators :reader, :keypad_takes, :keypad_keys, :keypad, :keypad_of
      def_delegators :marking, :mark
      def_delegators :tallying, :gathered, :tally, :for_class, :remark, :waiting
      def_delegators :display, :pages, :page, :plain, :answered, :right_in_words, :short, :short_in_words?
      def_delegators :display, :tally_parts, :picture_of, :drawn_parts
      def_delegators :handling, :look, :curated
      def_delegators :simulation, :simulate

      private

      # What a kind works out of its settings once, before it is frozen.
      def prepare; end
    end
  end
end
