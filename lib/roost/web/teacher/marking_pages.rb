# frozen_string_literal: true

module Roost
  module Web
    # What pages for marking by hand share, one's own and those for a colleague.
    module MarkingPages
      LABELS = { "0" => "0", "1/4" => "¼", "1/2" => "½", "3/4" => "¾", "1" => "1" }.freeze

      # Quarters by what buttons say.
      def mark_labels = LABELS

      # @return [Hash{Integer=>String}] seat id to mark; without one that was pressed, none is taken back
      def marks
        return table("marks") if params["marks"].is_a?(Hash)

        seats.to_h { |seat| [seat, pressed] }
      end

      # The mark of a button, of a field for points, or of levels.
      def pressed
        return text("mark") if text("mark")
        return "p#{text("points")}" if text("points")

        levels = params["levels"].is_a?(Hash) ? params["levels"] : {}
        levels.any? ? "l#{levels.sort_by { |at, _| at.to_i }.map { |_, level| level.to_s }.join(",")}" : "none"
      end

      # @return [Array<Integer>] ids that were sent
      def seats = Array(params["seats"]).filter_map { |seat| whole(seat) }

      # @return [Hash{Integer=>String}] of a field each seat
      def table(name)
        given = params[name].is_a?(Hash) ? params[name] : {}
        given.to_h { |seat, value| [whole(seat), value.to_s] }.except(nil)
      end

      def nameless? = params["names"] == "0"

      def mixed? = params["order"] == "1"

      # @param at [Integer, nil] the seat whose answer is to be seen
      def marking_path(row, slide, at: nil, **changed)
        query = marking_query(**changed)
        "/results/#{row.id}/questions/#{slide.id}/marks#{"?#{query}" unless query.empty?}#{"#group-#{at}" if at}"
      end

      # How the page is asked for, so that it stays so: without names, mixed.
      # @return [String] for an address
      def marking_query(**changed)
        URI.encode_www_form({ "names" => ("0" if nameless?), "order" => ("1" if mixed?), **changed }.compact)
      end

      def drawing_title(parts, part)
        return "Draw on this sketch" if part.empty?

        parts.one? ? "Draw on this card" : "Draw on card #{parts.index(part) + 1} of #{parts.length}"
      end

      # Whether the teacher has drawn on what a seat gave.
      def drawn_on?(row, slide, seat_id) = (@drawn_on ||= Store::DrawnOn.new.seats(row.id, slide.id)).include?(seat_id)

      # Where a teacher draws on what a seat gave.
      def drawing_path(row, slide, seat_id, **more)
        "/results/#{row.id}/students/#{seat_id}/#{slide.id}/drawn-on?#{marking_query(**more)}"
      end

      # @param marks [Hash] of Core::Analysis::Marking
      # @return [Hash] what a page with groups of answers needs
      def groups(row, slide, record, marks)
        marking = Core::Analysis::Marking.new(record, slide, marks: marks)
        { row: row, slide: slide, results: Core::Analysis::Results.new(record),
          groups: marking.groups(order: (row.id if mixed?)) }
      end

      # A mark in words: ¾, 7.5 of 10 points, or levels of the rubric.
      # @param mark [Core::Grading::HandMark, nil]
      def mark_in_words(mark, prompt)
        return "–" unless mark
        return rubric_in_words(prompt.rubric, mark.levels) if mark.levels && prompt.rubric&.fits?(mark.levels)

        LABELS.fetch(mark.written(prompt)) { "#{Core::NumberText.show(mark.mark * prompt.points)} of #{prompt.points} points" }
      end
    end
  end
end
