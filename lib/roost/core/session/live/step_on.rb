# frozen_string_literal: true

module Roost
  module Core
    module Session
      # What one command changed, small enough to be told: with it, whoever knew the session before needs not read it again.
      # Only where nothing but the state and the openings of questions is another (Facts).
      #
      # version::  of the session, with the command
      # lesson::   version of its lesson, without which the state says nothing
      # state::    document of the State
      # openings:: of slides with a new or another one: Hash of slide id to Array of the members of Opening
      StepOn = Struct.new(:version, :lesson, :state, :openings, keyword_init: true) do
        # @param before [State]
        # @param now [State]
        # @param about [Hash] :version and :lesson
        # @return [StepOn, nil] nil where more has changed
        def self.between(before, now, **about)
          facts = now.facts
          return nil if now.ended? || before.ended? || facts.with(openings: before.facts.openings) != before.facts

          changed = facts.openings.reject { |slide_id, all| before.facts.openings[slide_id].equal?(all) }
          openings = changed.transform_values { |all| all.map { |opening| kept(opening) } }
          new(**about, state: now.to_document, openings: openings).freeze
        end

        # Times as the database keeps them, to the microsecond.
        def self.kept(opening) = opening.to_a.map { |field| field.is_a?(Float) ? field.round(6) : field }
        private_class_method :kept

        # @param document [Hash, nil] as #to_document gave it
        def self.from_document(document)
          document && new(**document.transform_keys(&:to_sym).slice(*members)).freeze
        end

        def to_document = to_h.transform_keys(&:to_s)

        # @param before [State]
        # @return [State]
        def from(before)
          told = openings.transform_values { |all| all.map { |fields| Opening.of(fields) }.freeze }
          facts = told.empty? ? before.facts : before.facts.with(openings: before.facts.openings.merge(told).freeze)
          State.from_document(state, facts)
        end
      end
    end
  end
end
