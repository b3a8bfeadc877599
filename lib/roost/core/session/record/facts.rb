# frozen_string_literal: true

module Roost
  module Core
    module Session
      # What was done about the questions of a session so far. It only grows or is taken back by name; where the session stands
      # now a State says.
      #
      # openings::  Hash of slide id to [Opening], one an attempt, in order, for every question that was ever opened
      # set_aside:: ids of slides whose question was set aside: it counts for nobody
      # curated::   Hash of slide id to Curation, where the teacher has sorted what was given
      # plays::     Hash of section id to [Play], in order, for every round that was played
      # pairs::     who was told to talk with whom, round by round: Arrays of groups of ids of seats
      Facts = Struct.new(:openings, :set_aside, :curated, :pairs, :plays, keyword_init: true) do
        self::NONE = new(openings: {}.freeze, set_aside: [].freeze, curated: {}.freeze, pairs: [].freeze,
                         plays: {}.freeze).freeze

        # @param known [Hash] of what there is of these
        def self.of(**known) = self::NONE.with(**known.transform_values(&:freeze))

        def with(**changes) = self.class.new(**to_h, **changes).freeze

        # @param attempt [Integer, nil] nil for the latest; of a question of a round, of the time it is played now
        # @return [Opening, nil] of a slide
        def opening(slide_id, attempt = nil)
          all = openings.fetch(slide_id, [])
          return all.find { |each| each.attempt == attempt } if attempt

          play = plays.any? && play_of(slide_id)
          play ? all.reverse_each.find { |each| each.play == play.number } : all.last
        end

        # @return [Opening, nil] the last of a slide in one play of its round
        def opening_in(play, slide_id) = openings.fetch(slide_id, []).reverse_each.find { |each| each.play == play.number }

        # Which attempt at a question is on, or comes next where its round is played again and it has not been opened yet.
        # @return [Integer] from 1
        def attempt(slide_id) = opening(slide_id)&.attempt || (openings[slide_id]&.last&.attempt.to_i + 1)

        # @param number [Integer, nil] nil for the latest
        # @return [Play, nil]
        def play(section_id, number = nil)
          all = plays.fetch(section_id, [])
          number ? all.find { |each| each.number == number } : all.last
        end

        # @return [Play, nil] the latest of the round that a slide is in
        def play_of(slide_id) = plays.each_value.map(&:last).find { |play| play.slide_ids.include?(slide_id) }

        # The play in which a question was opened.
        # @param opening [Opening, nil] of the slide
        # @return [Play, nil]
        def play_at(slide_id, opening)
          return nil unless opening&.play

          plays.each_value.flat_map(&:itself).find { |play| play.number == opening.play && play.slide_ids.include?(slide_id) }
        end

        # @param play [Play] that begins
        # @return [Facts]
        def playing(play)
          earlier = plays.fetch(play.section_id, [])
          with(plays: plays.merge(play.section_id => [*earlier, play].freeze).freeze)
        end

        # With another opening of a slide: in place of that of the same attempt, or after the earlier ones.
        # @return [Facts]
        def opened(slide_id, opening)
          earlier = openings.fetch(slide_id, []).reject { |each| each.attempt == opening.attempt }
          with(openings: openings.merge(slide_id => [*earlier, opening].freeze).freeze)
        end

        def set_aside?(slide_id) = set_aside.include?(slide_id)

        # @param aside [Boolean] whether it is, or counts again
        # @return [Facts]
        def setting_aside(slide_id, aside: true)
          with(set_aside: (aside ? set_aside | [slide_id] : set_aside - [slide_id]).freeze)
        end

        # @return [Curation]
        def curation(slide_id) = curated.fetch(slide_id, Curation::BLANK)

        # @return [Facts]
        def curating(slide_id, curation) = with(curated: curated.merge(slide_id => curation).freeze)

        # @param groups [Array<Array<Integer>>] of a new round
        # @return [Facts]
        def pairing(groups) = with(pairs: [*pairs, groups].freeze)
      end
    end
  end
end
