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
      # pairs::     who was told to talk with whom, round by round: Arrays of groups of ids of seats
      Facts = Struct.new(:openings, :set_aside, :curated, :pairs, keyword_init: true) do
        self::NONE = new(openings: {}.freeze, set_aside: [].freeze, curated: {}.freeze, pairs: [].freeze).freeze

        # @param known [Hash] of what there is of these
        def self.of(**known) = self::NONE.with(**known.transform_values(&:freeze))

        def with(**changes) = self.class.new(**to_h, **changes).freeze

        # @param attempt [Integer, nil] nil for the latest
        # @return [Opening, nil] of a slide
        def opening(slide_id, attempt = nil)
          all = openings.fetch(slide_id, [])
          attempt ? all.find { |each| each.attempt == attempt } : all.last
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
