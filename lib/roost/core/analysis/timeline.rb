# frozen_string_literal: true

module Roost
  module Core
    module Analysis
      # A lesson as it went: how long each slide was up, when answers came, who came late or left early, and what was shown.
      class Timeline
        # One time that a slide was up. from, to:: epoch seconds; shown:: names of what was put up meanwhile, of SHOWN
        # talk:: seconds of talk time that were given
        Stretch = Struct.new(:slide, :from, :to, :shown, :talk, keyword_init: true) do
          def seconds = to - from
        end
        # A slide over the whole lesson. seconds:: that it was up; planned:: in seconds, or nil; answers:: how many came
        Part = Struct.new(:slide, :seconds, :planned, :answers, :shown, :talk, keyword_init: true)
        # Somebody who came or left while the lesson went on. what:: :came or :left
        Passage = Struct.new(:what, :name, :at, keyword_init: true)

        SHOWN = %w[results key standings spotlight].freeze
        MARGIN = 60 # seconds at the beginning and the end that nobody is late by, or early
        BINS = 60

        # begun, ended:: epoch seconds
        attr_reader :record, :begun, :ended

        # @param record [Session::Record] with its commands
        # @param ended_at [Float] epoch seconds
        def initialize(record, ended_at:)
          @record = record
          @begun = record.begun_at || record.commands.first&.at || ended_at
          @ended = ended_at
        end

        # Whether it is known on which slide the class was when.
        def known? = stretches.any?

        # @return [Array<Stretch>] in the order in which they were
        def stretches
          @stretches ||= steps.each_with_index.filter_map do |(slide_id, commands), place|
            slide = record.lesson.stop(slide_id) or next

            following = steps[place + 1]
            until_at = following ? following.last.first.at : ended
            Stretch.new(slide: slide, from: commands.first.at, to: [until_at, commands.first.at].max, shown: shown(commands),
                        talk: commands.sum { |each| each.name == "talk" ? each.arguments["seconds"].to_i : 0 }).freeze
          end
        end

        # @return [Array<Part>] one a slide, in the order in which they first were up
        def parts
          stretches.group_by { |stretch| stretch.slide.id }.map do |slide_id, of_slide|
            slide = of_slide.first.slide
            Part.new(slide: slide, seconds: of_slide.sum(&:seconds), planned: slide.minutes && (slide.minutes * 60),
                     answers: slide.prompt ? record.all_answers(slide_id).length : nil, shown: of_slide.flat_map(&:shown).uniq,
                     talk: of_slide.sum(&:talk)).freeze
          end
        end

        # How many answers came in each of BINS equal parts of the lesson.
        # @return [Array<Integer>]
        def answers
          times = record.lesson.prompts.flat_map { |slide| record.all_answers(slide.id).values.map(&:received_at) }
          times.each_with_object(Array.new(BINS, 0)) do |at, bins|
            bins[(share(at) * BINS).floor.clamp(0, BINS - 1)] += 1 if at.between?(begun, ended)
          end
        end

        # @return [Array<Passage>] in the order of time
        def passages
          came = record.seats.select { |seat| seat.came_at && seat.came_at > begun + MARGIN && seat.came_at < ended }
          left = record.seats.select { |seat| left_early?(seat) }
          [*came.map { |seat| Passage.new(what: :came, name: seat.name, at: seat.came_at).freeze },
           *left.map { |seat| Passage.new(what: :left, name: seat.name, at: seat.away_since).freeze }].sort_by(&:at)
        end

        # Where a time stands in the lesson.
        # @return [Float] 0 to 1
        def share(time) = lasting.zero? ? 0.0 : ((time - begun) / lasting).clamp(0.0, 1.0)

        def lasting = ended - begun

        private

        # @return [Array<Array(String, Array<Session::Record::Command>)>] id of each slide that was up to what was commanded then
        def steps
          @steps ||= record.commands.select(&:slide_id).chunk_while { |one, other| one.slide_id == other.slide_id }
                           .map { |commands| [commands.first.slide_id, commands] }
        end

        def shown(commands)
          named = commands.filter_map do |each|
            each.name == "show" ? each.arguments["what"] : ("spotlight" if each.name == "spotlight")
          end
          named & SHOWN
        end

        def left_early?(seat)
          seat.visited && !seat.keypad && seat.away_since && seat.away_since > begun && seat.away_since < ended - MARGIN
        end
      end
    end
  end
end
