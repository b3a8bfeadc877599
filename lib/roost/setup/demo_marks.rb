# frozen_string_literal: true

module Roost
  module Setup
    # What a teacher did after a demo session: a key that was wrong, found late or not yet, and writing that she marked by its
    # rubric, with stamps, and a colleague beside her.
    class DemoMarks
      STAMPS = "Well argued = 1\nSay why = 1/2\nA good guess"
      LEFT = 4 # answers that wait, where most are marked

      # @param source [Hash] of demo/term.yml
      # @param colleague [String] address of who marks beside her
      def initialize(row, source, colleague:)
        @row = Store::Sessions.new.find(row.id)
        @source = source
        @colleague = colleague
        @chance = Random.new(source["seed"])
      end

      def call
        wrong_key(@source["wrong_key"]) if @source["wrong_key"]
        mark if @source["marked"]
      end

      private

      def account_id = @row.account_id

      def lesson = @lesson ||= Store::Sessions.new.lesson_of(@row)

      def wrong_key(wrong)
        keys = lesson.slide(wrong["slide"]).prompt.settings["keys"]
        correct(wrong["slide"], [wrong["key"]])
        correct(wrong["slide"], keys) if wrong["late"]
      end

      def correct(slide, keys)
        Operations::CorrectQuestion.new.call(account_id, @row.id, slide, { "keys" => keys }, in_lesson: false)
      end

      def mark
        slide = lesson.prompts.find { |each| each.prompt.rubric }
        record = Store::Records.new.of(@row)
        ids = Core::Analysis::Marking.new(record, slide).given.keys
        ids = ids.drop(LEFT) if @source["marked"] == "most"
        levels = ids.to_h { |id| [id, slide.prompt.rubric.criteria.map { |criterion| @chance.rand(criterion.levels.length) }] }
        Operations::MarkByHand.new.call(account_id, @row.id, slide.id, levels.transform_values { |all| "l#{all.join(",")}" })
        return if @source["marked"] == "most"

        Operations::MarkByHand.new.release(account_id, @row.id, slide.id, true)
        Operations::StampAnswers.new.keep(account_id, STAMPS)
        beside(slide, levels)
      end

      # Who agrees with her on most.
      def beside(slide, levels)
        second = Operations::MarkSecond.new
        colleague = second.ask(account_id, @row.id, slide.id, @colleague).value
        theirs = levels.transform_values { |all| all.map { |level| @chance.rand(5).zero? ? [level - 1, 0].max : level } }
        second.call(colleague, @row.id, slide.id, theirs.transform_values { |all| "l#{all.join(",")}" })
      end
    end
  end
end
