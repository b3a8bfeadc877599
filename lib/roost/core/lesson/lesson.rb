# frozen_string_literal: true

module Roost
  module Core
    # What a teacher prepares: a title, what it is about, and slides in order, some of them
    # in sections. A value: every change gives a new lesson. Written down as one document
    # with its own schema version.
    class Lesson
      SCHEMA = 2
      TITLE_LIMIT = 120
      SLIDE_LIMIT = 600

      # class_slides:: those the class gets, in order; the others are for teachers only
      # stops:: where the class can be, in order: its slides, and before those of a quiz the card that
      #            stands for the quiz as a whole, under the section's id
      attr_reader :title, :slides, :class_slides, :sections, :details, :stops

      # @return [Array<Section>] game rounds with something to be played for
      attr_reader :rounds

      def self.from_document(document)
        current = LessonUpgrade.call(document)
        new(title: current.fetch("title"), details: Details.from_document(current["details"]),
            slides: current.fetch("slides").map { |slide| Slide.from_document(slide) },
            sections: current.fetch("sections").map { |section| Section.from_document(section) })
      end

      # @return [Reading] of a title to give a lesson
      def self.read_title(raw)
        Text.read(raw, limit: TITLE_LIMIT, what: "The title", lines: false).and_then do |title|
          title.empty? ? Reading.refused("A lesson needs a title. Type one.") : Reading.ok(title)
        end
      end

      # @param sections [Array<Section>] in layers (Sections)
      def initialize(title:, slides: [], sections: [], details: Details.blank)
        @title = title
        @slides = slides.dup.freeze
        @class_slides = slides.select(&:for_class).freeze
        @details = details
        @places = slides.each_with_index.to_h { |slide, place| [slide.id, place] }.freeze
        @sections = Sections.new(sections, slides.map(&:id))
        @rounds = sections_played.freeze
        @stops = with_cards.freeze
        @cards = @stops.reject { |each| @places.key?(each.id) }.to_h { |each| [each.id, each] }.freeze
        freeze
      end

      def with(**changes) = Lesson.new(title: title, slides: slides, sections: sections.layers, details: details, **changes)

      # @return [Slide, nil]
      def slide(id) = (place = place(id)) && slides[place]

      # Position from 0, or nil when there is no such slide.
      def place(id) = @places[id]

      # @return [Slide, nil] a slide, or what stands for a section as a whole: the card of a quiz or round, or a round's end
      def stop(id) = slide(id) || @cards[id]

      # The stop before (-1) or after (1) the one with this id, or nil past either end. A quiz is come to
      # by its card and passed as a whole; its slides are walked through only from one of them.
      def neighbour(id, by)
        at = stops.index { |each| each.id == id }
        target = at && (at + by) >= 0 ? stops[at + by] : nil
        entered = target && section_of(target.id)
        return target unless entered&.quiz? && entered != section_of(id)

        by.negative? ? stop(entered.id) : stops[(stops.rindex { |each| section_of(each.id) == entered } + 1)..].first
      end

      # @return [Array<Section>] those that students move through at their own speed
      def quizzes = sections.select(&:quiz?)

      # @return [Section, nil] the quiz of that id
      def quiz(id) = quizzes.find { |section| section.id == id }

      # @return [Array<Slide>] of a section, as the class gets them
      def slides_of(section) = class_slides.select { |slide| section_of(slide.id) == section }

      def prompts = class_slides.select(&:prompt)

      # As long as the teacher means it to take, as far as she has said.
      # @param upto [String, nil] only up to and with this slide
      # @return [Integer, nil] minutes; nil where nothing is planned
      def planned_minutes(upto: nil)
        slides = upto ? class_slides.first(class_slides.index { |slide| slide.id == upto }.to_i + 1) : class_slides
        planned = slides.filter_map(&:minutes)
        planned.sum if planned.any? || (upto && planned_minutes)
      end

      # @return [Section, nil]
      def section_of(slide_id) = sections.of(slide_id)

      # Whether a slide's question is played for points: it has a key and is in a game round.
      def game?(slide_id) = section_of(slide_id)&.game? && slide(slide_id).prompt&.keyed? ? true : false

      # Slides whose question is played for points.
      def game_slides = class_slides.select { |slide| game?(slide.id) }

      # @return [Section, nil] the game round that a slide is in, or that begins or ends at this stop
      def round_at(id)
        section = section_of(id)
        section ? round_named(section.id) : rounds.find { |each| [each.id, each.end_id].include?(id) }
      end

      # @return [Section, nil] the game round of that id
      def round_named(id) = rounds.find { |section| section.id == id }

      # The questions played for points in the round that a slide is in.
      def round(slide_id) = questions_of(round_at(slide_id))

      # @param section [Section, nil] a game round
      # @return [Array<Slide>] its questions that are played for points
      def questions_of(section) = section ? slides_of(section).select { |slide| slide.prompt&.keyed? } : []

      # Whether the class will want to hear something.
      def sound? = class_slides.any?(&:sound?)

      # Slides with something left to do.
      def unfinished = slides.select { |slide| slide.problems.any? }

      # The lesson as it is given to a class.
      def settled = with(slides: slides.map(&:settled))

      # The lesson as one session gets it: the questions of each section that is marked change places among themselves,
      # what only shows something stays where it is.
      # @param random [Random]
      def questions_mixed(random)
        places = sections.select(&:marked?).flat_map do |section|
          asked = section.slide_ids.select { |id| slide(id).prompt }
          asked.zip(asked.shuffle(random: random))
        end
        order = places.to_h
        with(slides: slides.map { |each| slide(order.fetch(each.id, each.id)) })
      end

      # The lesson with every question's parts in an order of each seat's own, where its kind can do that.
      def parts_mixed = with(slides: slides.map { |each| each.prompt ? each.with(prompt: each.prompt.mixed) : each })

      def renamed(title) = with(title: title)

      # @param added [Array<Slide>] come after the slide with this id and into its section;
      #   at the end, and into none, when there is no such slide; after a quiz or a round, and into none, when it is that of its
      #   card or of a round's end
      def with_slides_after(id, added)
        whole = quiz(id) || (round_at(id) unless place(id))
        before = whole ? whole.slide_ids.last : id
        at = before && place(before) ? place(before) + 1 : slides.length
        with(slides: slides.dup.insert(at, *added), sections: sections.joining(id, added.map(&:id)))
      end

      # @return [Reading] of the lesson with these slides, too, if there is room for them
      def adding(added, after:)
        return Reading.ok(with_slides_after(after, added)) if slides.length + added.length <= SLIDE_LIMIT

        Reading.refused("#{SLIDE_LIMIT} slides is the most a lesson can have.")
      end

      # The same with what comes from elsewhere: the one slide that a new lesson begins with gives way, unless something has
      # been put on it.
      # @return [Reading]
      def bringing_in(added, after:)
        fresh = slides.one? && slides.first.blank? ? without_slides([slides.first.id]) : self
        fresh.adding(added, after: after)
      end

      # The lesson with a copy of each of these slides after the last of them; the copies'
      # questions are their own.
      # @param copies [Hash{String=>String}] ids to ids of the copies
      # @return [Reading]
      def duplicating(copies)
        ids = slides.map(&:id) & copies.keys
        adding(ids.map { |id| slide(id).copy(copies[id]) }, after: ids.last)
      end

      def without_slides(ids) = with(slides: slides.reject { |slide| ids.include?(slide.id) })

      def replacing(slide) = with(slides: slides.map { |old| old.id == slide.id ? slide : old })

      # The lesson with these slides, in their order, moved to a position from 0 (counted
      # without them), kept within the ends. Between two slides of one section they join it;
      # beside slides of the section they were in they stay in it; elsewhere they leave it.
      def moving(ids, to)
        moved, rest = slides.partition { |slide| ids.include?(slide.id) }
        return self if moved.empty?

        placed(rest.dup.insert(to.clamp(0, rest.length), *moved), moved.map(&:id))
      end

      # One step up (-1) or down (1), as by keyboard. At the edge of a section the first
      # step leaves or enters it without passing another slide.
      def stepping(ids, by)
        ids = slides.map(&:id) & ids
        return self if ids.empty?

        edge = by.negative? ? ids.first : ids.last
        passed = beside(edge, by)
        mine, theirs = [edge, passed].map { |id| id && section_of(id) }
        return with(sections: sections.placing(ids, mine ? nil : theirs.id)) if mine != theirs
        return self unless passed

        moving(ids, by.negative? ? place(passed) : place(passed) + 1 - ids.length)
      end

      # A run of slides as a section of its own, run in one way.
      # @param ids [Array<String>] the run goes from the first of them to the last
      def sectioned(ids, section_id, way)
        places = ids.filter_map { |id| place(id) }
        run = slides[places.min..places.max].map(&:id)
        with(sections: sections.with_run(run, section_id, way))
      end

      # @param changes [Hash] :way, :title or :rules
      def section_changed(section_id, **changes) = with(sections: sections.changed(section_id, **changes))

      def without_section(section_id) = with(sections: sections.without(section_id))

      # Everything but the slides themselves.
      def head
        { "schema" => SCHEMA, "title" => title, "details" => details.to_document, "sections" => sections.to_document }
      end

      def to_document = head.merge("slides" => slides.map(&:to_document))

      def inspect = "#<Lesson #{title.inspect} #{slides.map(&:id)}>"

      def ==(other) = other.is_a?(Lesson) && to_document == other.to_document

      private

      def sections_played = @sections.select { |section| section.game? && questions_of(section).any? }

      def with_cards
        class_slides.chunk_while { |one, other| section_of(one.id) == section_of(other.id) }.flat_map do |run|
          section = section_of(run.first.id)
          next run unless section&.quiz? || rounds.include?(section)

          section.quiz? ? [section.card(run), *run] : [section.card(run), *run, section.last_card]
        end
      end

      # The lesson with slides in this order, of which some have come to a new place.
      def placed(order, ids)
        around = around(order, ids)
        own = ids.map { |id| section_of(id) }.uniq
        stay = own.first if own.length == 1 && around.include?(own.first)
        inside = around.first if around.first == around.last
        with(slides: order, sections: sections.placing(ids, (inside || stay)&.id))
      end

      # The sections (or nil) of the slides before and after a run of slides in an order.
      def around(order, ids)
        all = order.map(&:id)
        before = all.index(ids.first) - 1
        [(all[before] unless before.negative?), all[all.index(ids.last) + 1]].map { |id| id && section_of(id) }
      end

      # The id of the slide before (-1) or after (1), nil past either end.
      def beside(id, by) = place(id) + by >= 0 ? slides[place(id) + by]&.id : nil
    end
  end
end
