# frozen_string_literal: true

module Roost
  module Web
    # Students by questions as a teacher wants to read them: what stands in the cells, in which order students and questions come,
    # and which question a phone shows, where there is room for one.
    class ResultsGrid
      READINGS = { "right" => "Right or wrong", "percent" => "Percent", "points" => "Points", "time" => "Time",
                   "answer" => "Answers" }.freeze
      ORDERS = { "lesson" => "as in the lesson", "hardest" => "hardest first" }.freeze
      ANSWER = 60 # characters
      # By what students are sorted, but for questions: name of the column, and what is compared.
      SORTS = { "name" => "Student", "share" => "Right", "points" => "Points", "team" => "Team", "group" => "Group" }.freeze

      attr_reader :results, :reading, :order, :sort

      # @param results [Core::Analysis::Results]
      # @param path [String, nil] of the page, where heads of columns sort by them; nil on paper
      # @param asked [Hash] as the address says: "as", "order", "sort" (one of SORTS, or a slide), "down", "only" (a slide)
      def initialize(results, asked = {}, path: nil)
        @results = results
        @path = path
        @reading = READINGS.key?(asked["as"]) && readings.key?(asked["as"]) ? asked["as"] : "right"
        @order = ORDERS.key?(asked["order"]) ? asked["order"] : "lesson"
        @sort = sorts.key?(asked["sort"]) || slide(asked["sort"]) ? asked["sort"] : "name"
        @down = asked["down"] == "1"
        @asked_for = asked["only"]
      end

      # @return [Hash{String=>String}] READINGS that say something here
      def readings = results.game? ? READINGS : READINGS.except("points")

      # @return [Hash{String=>String}] SORTS that say something here
      def sorts
        @sorts ||= SORTS.reject do |name, _|
          (name == "points" && !results.game?) || (name == "team" && record.teams.empty?) || (name == "group" && groups.empty?)
        end
      end

      def orders = ORDERS

      # @return [Array<Core::Analysis::Question>]
      def questions
        return results.questions unless order == "hardest"

        results.questions.each_with_index.sort_by { |question, place| [question.facility || 2, place] }.map(&:first)
      end

      # The one that a phone shows.
      # @return [Core::Analysis::Question]
      def only = @only ||= questions.find { |question| question.slide.id == @asked_for } || questions.first

      # The cells of one line. A page has thousands; those that are a sign are written once a question.
      # @param questions [Array<Core::Analysis::Question>]
      # @yieldparam status [Symbol] of an outcome
      # @yieldreturn [String] HTML of its sign
      # @return [String] HTML
      def cells(line, questions)
        questions.map do |question|
          slide = question.slide
          words = cell(line, slide)
          next "#{opening(slide)}#{Rack::Utils.escape_html(words)}</td>" if words

          status = line.outcomes[slide.id].status
          ((@signs ||= {})[slide.id] ||= {})[status] ||= "#{opening(slide)}#{yield(status)}</td>"
        end.join
      end

      # @return [Array<Core::Analysis::Results::Line>] who has nothing to be sorted by comes last, either way
      def lines
        return down? ? results.lines.reverse : results.lines if sort == "name"

        known, unknown = results.lines.partition { |line| sorted_by(line) }
        ranked = known.each_with_index.sort_by { |line, place| [sorted_by(line), place] }.map(&:first)
        (down? ? ranked.reverse : ranked) + unknown
      end

      def down? = @down

      # The head of a column, which sorts by it, the other way round where it does already.
      # @return [String] HTML
      def head(name, words)
        words = Rack::Utils.escape_html(words)
        return words unless @path

        query = address("sort" => name, "down" => sort == name && !down? ? "1" : nil)
        %(<a href="#{@path}?#{Rack::Utils.escape_html(query)}">#{words}</a>)
      end

      # For readers who don't see the arrow.
      # @return [String] an attribute; "" of a column that is not sorted by
      def sorted(name)
        return "" unless @path && sort == name

        %( aria-sort="#{down? ? "descending" : "ascending"}")
      end

      # @param changed [Hash{String=>String, nil}]
      # @return [String] a query
      def address(changed = {})
        asked = { "as" => reading, "order" => order, "sort" => sort, "down" => ("1" if down?),
                  "only" => @asked_for }.merge(changed)
        URI.encode_www_form(asked.compact)
      end

      # @return [String, nil]
      def beside(line)
        case sort
        when "team" then record.teams.find { |team| team.id == line.seat.team_id }&.name
        when "group" then groups[line.seat.student_id]
        end
      end

      private

      def opening(slide) = %(<td class="is-mark#{" is-only" if slide.id == only.slide.id}">)

      # What stands in a cell, in words; nil where the sign says all.
      # @return [String, nil]
      def cell(line, slide)
        return nil if reading == "right"

        outcome = line.outcomes[slide.id]
        case reading
        when "percent" then outcome.mark && "#{(outcome.mark * 100).round(half: :up)} %"
        when "points" then outcome.points&.to_s
        when "time" then time(slide, line.seat.id) || ("–" if outcome.answer)
        when "answer" then said(slide, outcome.answer)
        end
      end

      def record = results.record

      def slide(id) = id && results.slides.find { |each| each.id == id }

      def groups
        @groups ||= record.roll.reject { |student| student.group.to_s.empty? }.to_h { |student| [student.id, student.group] }
      end

      def seconds(slide) = (@seconds ||= {})[slide.id] ||= record.seconds(slide.id)

      def time(slide, seat_id) = seconds(slide)[seat_id]&.then { |time| "#{time.round} s" }

      def sorted_by(line)
        case sort
        when "share" then line.share
        when "points" then line.points
        when "team", "group" then beside(line)&.downcase
        else of_question(line)
        end
      end

      # By what the cells of a question say: time, answer, or mark.
      def of_question(line)
        sorting = slide(sort)
        outcome = line.outcomes[sorting.id]
        case reading
        when "time" then seconds(sorting)[line.seat.id]
        when "answer" then said(sorting, outcome.answer)&.downcase
        else outcome.mark
        end
      end

      def said(slide, answer)
        return nil unless answer&.readable?

        words = (@said ||= {})[[slide.id, answer.value]] ||= slide.prompt.plain(answer.value).to_s
        words.length > ANSWER ? "#{words[0, ANSWER - 1]}…" : words
      end
    end
  end
end
