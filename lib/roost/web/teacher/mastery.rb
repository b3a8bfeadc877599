# frozen_string_literal: true

module Roost
  module Web
    # Who in a class has which standard or subtopic, and by which questions that was seen.
    class Mastery < TeacherApp
      SIGNS = { has: ["✓", "has it"], not_yet: ["○", "not yet"], too_little: ["…", "too little seen"] }.freeze
      PERIODS = { "all" => "since the beginning", "term" => "in the last four months", "month" => "in the last month" }.freeze

      get("/:id/standards") { page("classes/mastery", title: "Who has what", **about) }

      # One thing: who has it, who doesn't, and by what that was seen of each.
      get "/:id/standards/about" do
        about = about()
        name = text("name").to_s
        not_found unless about[:overview].names.include?(name)
        page("classes/mastery_of", title: name, name: name, **about)
      end

      # The questions about it again, to exactly those who don't have it.
      post "/:id/standards/about/practise" do
        given = Operations::PractiseStandard.new.call(account_id, klass.id, text("name").to_s, line: line, period: period,
                                                                                              once: Operations::StartSession.once(params))
        redirect "/assignments/#{granted(given).id}", 303
      end

      helpers ClassCharts

      helpers do
        def klass = @klass ||= Store::Classes.new.find(account_id, whole(params["id"])) || not_found

        # @return [Rational] from 50 to 100 %, as typed
        def line
          typed = Core::NumberText.read(text("line").to_s).value
          share = typed && (typed / 100)
          share && Core::Analysis::Mastery::LINES.cover?(share) ? share : Core::Analysis::Mastery::LINE
        end

        def period = PERIODS.key?(text("period")) ? text("period") : "all"

        def about
          { klass: klass, line: line, period: period,
            overview: Operations::WhoHasIt.new.call(account_id, klass.id, line: line, period: period) }
        end

        def chosen = URI.encode_www_form({ "line" => (line * 100).round, "period" => period })
      end
    end
  end
end
