# frozen_string_literal: true

module Roost
  module Operations
    # How the questions of a lesson went when they were last asked.
    class LastTime
      # Earlier sessions that are looked at, the latest first.
      MOST = 5

      # @return [Hash{String=>Float}] ids of slides to the mean mark in the latest session in which their question was
      #   asked and marked; students of a practice class are left out
      def call(account_id, lesson_id)
        ids = Store::PastSessions.new.ended_of_lesson(account_id, lesson_id, MOST)
        WriteEvidence.new.call(ids)
        questions = Store::Evidence.new.by_question(ids).sort_by { |question| -ids.index(question.session_id) }
        questions.to_h { |question| [question.slide_id, question.share.to_f] }
      end
    end
  end
end
