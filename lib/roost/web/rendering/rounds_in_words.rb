# frozen_string_literal: true

module Roost
  module Web
    # What is told of game rounds, in words.
    module RoundsInWords
      # How sure one is, by what goes with the answer.
      SURE = { 1 => "Not very sure", 2 => "Fairly sure", 3 => "Very sure" }.freeze

      # @param round [Core::Game::Comparison]
      # @return [String] how it stands against what came before
      def round_in_words(round)
        than = { yourself: "last time", class: "the middle of the class" }[round.against]
        more = round.difference.round
        return "as many as #{than}" if more.zero?

        "#{count(more.abs, "point")} #{more.positive? ? "more" : "fewer"} than #{than}"
      end

      # What is to be heard of a round, once each time that it is another.
      # @param view [Core::Session::Views::Screen, Core::Session::Views::Seat]
      # @param surface [Symbol] :screen or :seat
      # @return [String, nil] HTML
      def cue(view, surface)
        round = view.round
        return nil unless round && (surface == :screen ? %w[screen devices] : %w[devices]).include?(round.sounds)

        heard = heard(view)
        id = [round.number, view.slide.id, view.attempt, heard, (view.ending&.step if surface == :screen)].join(" ")
        %(<span hidden id="cue" data-cue="#{id}" data-sound="#{heard}"></span>)
      end

      # @return [String] which of the sounds (assets/js/shared/sounds.js)
      def heard(view)
        return view.ending&.over? ? "over" : "step" if view.round.stage == :end
        return "open" if view.open

        view.opened ? "close" : "begin"
      end

      # Whether the class is at the beginning or the end of a round, and at none of its slides.
      def between_questions?(view) = !view.round.nil? && view.round.stage != :question

      # What a row of the run sheet is that stands for a section as a whole.
      # @param place [Core::Session::Views::Desk::Place]
      def whole_in_words(place)
        return "The quiz as a whole" if place.section.quiz?

        place.slide.id == place.section.id ? "The beginning of the round" : "The end of the round"
      end

      # @param best [Core::Session::RoundResult::Best]
      # @return [String]
      def best_in_words(best)
        name = best.slide&.name
        case best.name
        when :only then "You alone had it right: #{name}"
        when :fastest then "The quickest right answer, in #{best.number.round(1)} s: #{name}"
        when :climb then "Up #{count(best.number, "place")} with one question: #{name}"
        when :row then "#{best.number} right in a row"
        when :points then "#{count(best.number, "point")} for #{name}"
        else best.number.zero? ? "You were there for all of it" : "You answered #{count(best.number, "question")}"
        end
      end

      # What an answer earns, right and wrong, of whoever is that sure.
      # @param style [Core::Game::Style]
      # @return [Array(String, String)]
      def at_stake(style, points, sure)
        right, wrong = style.at_stake(points, sure)
        ["right +#{right}", "wrong #{wrong.zero? ? "0" : "−#{wrong.abs}"}"]
      end

      # Of which styles a setting of a round is.
      # @param setting [Symbol] of Core::Game::Style.settings
      # @return [String] such as "only for: Points"
      def only_for(setting)
        labels = Core::Game::Style.all.select { |style| style.settings.include?(setting) }.map(&:label)
        "only for: #{labels.join(", ")}"
      end
    end
  end
end
