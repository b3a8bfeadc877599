# frozen_string_literal: true

module Roost
  module Operations
    # What a student has taken part in so far, and how it went: for their own page.
    class OwnResults
      MOST = 20
      # Marks of a subtopic that are needed to say anything of it (rules.md, who has it).
      ENOUGH = 3

      # share:: mean mark, or nil; right, marked:: how many questions; copy:: whether there is a copy to look at
      # points:: in its rounds, nil where none was played
      Past = Struct.new(:row, :share, :right, :marked, :points, :copy, keyword_init: true)
      # share:: mean mark over all questions about it; many:: how many there were
      Topic = Struct.new(:name, :share, :many, keyword_init: true)
      Results = Struct.new(:past, :topics, keyword_init: true)

      # @param student [Core::Student]
      # @return [Results] the latest sessions first, topics with the surest first
      def call(student)
        marks = Hash.new { |all, name| all[name] = [] }
        past = Store::Sessions.new.ended_with(student.id, MOST).map { |row, seat_id| past(row, seat_id, marks) }
        topics = marks.select { |_, each| each.length >= ENOUGH }.map do |name, each|
          Topic.new(name: name, share: each.sum / each.length, many: each.length).freeze
        end
        Results.new(past: past, topics: topics.sort_by { |topic| [-topic.share, topic.name] }).freeze
      end

      private

      def past(row, seat_id, marks)
        results = Core::Analysis::Results.new(Store::Records.new.at_seat(row, seat_id))
        line = results.line_of(seat_id)
        lesson = Store::Sessions.new.lesson_of(row)
        line.outcomes.each do |slide_id, outcome|
          topics = lesson.slide(slide_id).prompt.then { |prompt| prompt.counts? ? prompt.subtopics + prompt.standards : [] }
          topics.each { |name| marks[name] << outcome.mark if outcome.mark }
        end
        Past.new(row: row, share: line.share, right: line.right, marked: line.marked, points: (line.points if results.game?),
                 copy: OwnCopy.allowed?(row, seat_id)).freeze
      end
    end
  end
end
