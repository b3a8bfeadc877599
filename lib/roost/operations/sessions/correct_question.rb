# frozen_string_literal: true

module Roost
  module Operations
    # Gives a question of a session another key or other points, during it or afterwards.
    # Marks, points and standings are functions of the question and the answers, so they
    # all follow (rules.md, correcting a key).
    class CorrectQuestion
      # prompt:: Core::Prompt as it is now; in_lesson:: whether the lesson's own was corrected, too
      Done = Struct.new(:prompt, :in_lesson, keyword_init: true)

      # @param form [Hash{String=>Object}] see Core::Prompt#corrected
      # @param in_lesson [Boolean] correct the lesson the session was started from, too
      # @return [Core::Reading, nil] of Done; nil when she has no such session or question
      def call(account_id, session_id, slide_id, form, in_lesson:)
        sessions = Store::Sessions.new
        sessions.transaction do
          row = sessions.of_teacher(account_id, session_id, lock: true)
          slide = row && sessions.lesson_of(row).slide(slide_id)
          next nil unless slide&.prompt

          slide.prompt.corrected(form).map do |prompt|
            keep(sessions, row, slide.with(prompt: prompt), account_id) unless prompt == slide.prompt
            Done.new(prompt: prompt, in_lesson: in_lesson && lesson_corrected?(account_id, row, slide, form)).freeze
          end
        end
      end

      # Whether the lesson the session was started from still asks what was asked.
      # @param asked [Core::Slide] of the session
      def self.in_lesson?(row, asked)
        present = row.lesson_id && Store::Lessons.new.slide(row.lesson_id, asked.id)
        present&.prompt && %i[kind shape].all? { |part| present.prompt.public_send(part) == asked.prompt.public_send(part) }
      end

      private

      def keep(sessions, row, slide, account_id)
        sessions.change_lesson(row, sessions.lesson_of(row).replacing(slide))
        sessions.advance(row, row.state, command: "correct", account_id: account_id,
                                               arguments: { "slide" => slide.id, "prompt" => slide.prompt.to_document })
      end

      # Corrects the lesson's own question, but only while that still asks what was asked.
      def lesson_corrected?(account_id, row, asked, form)
        return false unless CorrectQuestion.in_lesson?(row, asked)

        present = Store::Lessons.new.slide(row.lesson_id, asked.id)
        reading = EditSlide.new.call(account_id, row.lesson_id, asked.id, rev: present.rev) do |slide|
          slide.prompt.corrected(form).map { |prompt| slide.with(prompt: prompt) }
        end
        reading ? reading.ok? : false
      end
    end
  end
end
