# frozen_string_literal: true

require "json"
require "rack/utils"
require "tilt"
require "tilt/erubi"

module Roost
  module Web
    # Templates and what they may call. Everything is escaped unless a template says
    # `<%==`, which it does for other templates and our own drawings only.
    module Rendering
      include Pictures
      include Badges
      include RoundsInWords

      Web::Kinds.parts("Helpers").each { |helpers| include helpers }

      VIEWS = File.expand_path("../views", __dir__)
      # Views of kinds of prompt, by names that begin with kinds/.
      KINDS = File.expand_path("..", __dir__)
      # Questions side by side on a sheet of paper, with room for the names.
      PAPER_COLUMNS = 7
      MANIFEST = File.join(Settings::ROOT, "public/assets/manifest.json")

      # Templates look names up in whatever includes this.
      Core = Roost::Core
      Drawings = Web::Drawings
      Plants = Web::Plants
      Strokes = Web::Strokes
      Why = Web::Why
      Asked = Web::Asked
      Kinds = Web::Kinds
      SeatNews = Web::SeatNews
      RoundsInWords = Web::RoundsInWords
      SpeedChart = Web::SpeedChart
      RunningTotals = Web::RunningTotals
      Store = Roost::Store
      Exchange = Roost::Exchange
      Operations = Roost::Operations

      @templates = {}
      @lock = Mutex.new

      class << self
        # @return [Tilt::Template] read once a process
        def template(name)
          @lock.synchronize do
            @templates[name] ||= Tilt::ErubiTemplate.new(path(name), escape_html: true, freeze: true, default_encoding: "UTF-8")
          end
        end

        def template?(name) = File.exist?(path(name))

        def path(name) = File.join(name.start_with?("kinds/") ? KINDS : VIEWS, "#{name}.erb")

        # @return [Hash{String=>String}] asset name to its address with fingerprint
        def manifest = @manifest ||= JSON.parse(File.read(MANIFEST))
      end

      # One template as HTML.
      def partial(name, **locals) = Rendering.template(name).render(self, locals)

      # Levels of a rubric that were given, such as "Content: complete (2 of 2), Language: clear (1 of 1)".
      # @param levels [Array<Integer>] that fit
      def rubric_in_words(rubric, levels)
        rubric.criteria.zip(levels).map do |criterion, at|
          points = [criterion.levels[at].points, criterion.most].map { |each| Core::NumberText.show(each) }
          "#{criterion.name}: #{criterion.levels[at].name} (#{points.join(" of ")})"
        end.join(", ")
      end

      LOOKED = { page: "looked at their page", results: "looked at their results", record: "made a file of all that is kept",
                 mark: "changed a mark", grade: "changed a grade", removed: "removed them from past sessions" }.freeze

      # @param entry [Store::LookedAt::Entry]
      def looked_in_words(entry) = [LOOKED.fetch(entry.what, entry.what.to_s), entry.said].reject(&:empty?).join(": ")

      # Whether a kind has this view, of those that not every kind has.
      def kind_view?(prompt, name) = Rendering.template?("kinds/#{prompt.kind}/#{name}")

      # An answer as SVG, for kinds whose answers are pictures.
      # @param under [Core::Picture, nil] what it lies on, where that is to be seen, too
      def drawn(prompt, value, under: nil) = partial("kinds/#{prompt.kind}/picture", prompt: prompt, value: value, picture: under)

      # A question as it stands in a sheet of questions.
      def sheet_row(prompt) = Exchange::Kinds.sheet_row(prompt.kind).new(prompt)

      # A text that a student gave. Where answers come in live it may be cut (Brief).
      def given_text(text) = text

      # Controls that stand elsewhere in the page than the form they belong to.
      # @param id [String] of the form
      # @param html [String] of ours
      def in_form(id, html)
        html.gsub(/<(?:input|textarea|select|button)\b(?![^>]*\sform=)/) { |tag| %(#{tag} form="#{id}") }
      end

      # What a part of a question is called in a page: by its id where one may know that.
      # @param id [String]
      def item_id(id) = id

      # The address of a picture that was given: of a sketch, or on a card.
      # @param post [Integer] number of the card, 0 for a sketch
      # @param attempt [Integer] 0 for the one that counts
      # @param version [String] changes with what is in the picture
      def given(slide, seat_id, post: 0, attempt: 0, version: nil, width: nil)
        query = URI.encode_www_form({ v: version, w: width }.compact)
        "/given/#{AnswerPictures.ids.encode(seat_id, slide.id, post: post, attempt: attempt)}#{"?#{query}" unless query.empty?}"
      end

      # What comes of the block, which depends on this thing alone: where many views share it, as
      # seats share a tally, it is worked out once.
      def once(_thing) = yield

      # What comes of the block, which depends on these things alone: where views are made again and again,
      # it is remembered.
      # @param thing one and the same object as long as nothing about it changes
      # @param more what can be compared
      def kept(_thing, *_more) = yield

      # A whole page: the template inside a layout.
      # @param bundle [String] which of the built styles and scripts it uses
      # @param theme [String, nil] the look of the lesson the page shows
      # @param shared [Hash] what a link to it says of itself where it is pasted: :title, :description and :image
      def page(name, title:, layout: "layouts/teacher", bundle: "teacher", theme: nil, shared: nil, **locals)
        partial(layout, title: title, bundle: bundle, theme: theme, shared: shared, content: partial(name, **locals))
      end

      def asset(name) = Rendering.manifest.fetch(name)

      def markdown(text) = Markdown.html(text)

      # One line of a teacher's words, with its formulas.
      def words(text) = Markdown.line(text)

      # 24 Nov 2026, at the school
      # @param time [Time, Numeric] epoch seconds
      def date(time) = school_time.local(time).strftime("%-d %b %Y")

      # 10:32, at the school
      def clock(time) = school_time.local(time).strftime("%H:%M")

      # 68 %
      def percent(share) = "#{(share * 100).round(half: :up)} %"

      # 0:18
      def minutes(seconds) = format("%d:%02d", seconds.to_i / 60, seconds.to_i % 60)

      # 1 minute, 12 minutes: what there is of it, at least one.
      def minutes_long(seconds) = count([(seconds / 60).ceil, 1].max, "minute")

      # 1 student, 3 students
      # Classes for a list that is laid out otherwise once it has more than so many entries.
      def over(number, *limits) = limits.select { |limit| number > limit }.map { |limit| " is-over-#{limit}" }.join

      def count(number, one, many = "#{one}s") = "#{number} #{number == 1 ? one : many}"

      def ordinal(number)
        ending = (11..13).cover?(number % 100) ? "th" : { 1 => "st", 2 => "nd", 3 => "rd" }.fetch(number % 10, "th")
        "#{number}#{ending}"
      end

      # What stands for something that was given: at the Desk a button that lights who gave it (highlight.js), elsewhere
      # just what it is.
      # @param part [String] as the kind's tally_parts names it
      # @param called [String, nil] how the teacher would call it; nil where its own words say that
      # @param html [String] ours
      # @param lit [Boolean, nil] whether it is at the Desk
      def lights(part, called, html, lit:)
        return html unless lit

        said = called && Rack::Utils.escape_html(called)
        called = said && %( data-called="#{said}")
        first = said && %(<span class="sr-only">Who gave #{said}: </span>)
        %(<button type="button" class="part" data-part="#{part}"#{called} aria-pressed="false">#{first}#{html}</button>)
      end

      # The same for a part of an SVG.
      # @param html [String] ours: shapes
      # @param count [Integer, nil] that stands in it
      def lights_svg(part, called, html, count: nil)
        said = Rack::Utils.escape_html(called)
        name = [said, count].compact.join(": ")
        %(<g class="part" role="button" tabindex="0" data-part="#{part}" data-called="#{said}" aria-pressed="false" ) +
          %(aria-label="Who gave #{name}">#{html}</g>)
      end

      # What a slide asks, in a few words: choice · 40 s
      def slide_brief(slide)
        return "slide" unless slide.prompt

        [slide.prompt.label.downcase, ("#{slide.prompt.time_limit} s" if slide.prompt.time_limit)].compact.join(" · ")
      end

      # @return [Exchange::SchoolTime] how times are said here; looked up once a page
      def school_time = @school_time ||= Operations::SchoolClock.here

      # What a browser that calls itself so runs on.
      def device_of(agent) = agent.match?(/Mobi|Android/) ? "A phone or tablet" : "A computer"

      # By which a form is known when its button is pressed twice.
      # @return [String] HTML
      def once_field = %(<input type="hidden" name="once" value="#{SecureRandom.uuid}">)

      # Seconds left until a deadline, to the tenth; what the timer elements count down from.
      def left(deadline, now) = [deadline - now, 0].max.round(1)

      # What the timer of an open question needs beside that.
      # @return [Hash] :length, in which the sun sinks, and :reading, seconds for which it stands still before
      def sun_of(view, now)
        { length: view.clock.thinking, reading: view.clock.reading_until ? left(view.clock.reading_until, now) : 0 }
      end
    end
  end
end
